import { Box, Divider, Menu, MenuItem } from '@mui/material';

/** One entry of a menu: what can be done, what is only said, or a rule between. */
export type MenuEntry = { words: string; does: () => void } | { said: string } | 'rule';

/** A menu that hangs on what opened it; it loads when it is opened first. */
export function MenuOf({
  anchor,
  entries,
  onClose,
}: {
  anchor: HTMLElement | null;
  entries: readonly MenuEntry[];
  onClose: () => void;
}) {
  return (
    <Menu
      anchorEl={anchor}
      open={anchor !== null}
      onClose={onClose}
      slotProps={{ paper: { sx: { minWidth: 240 } } }}
    >
      {entries.map((entry, i) =>
        entry === 'rule' ? (
          // oxlint-disable-next-line react/no-array-index-key -- rules have nothing else to be known by
          <Divider component="li" key={i} />
        ) : 'said' in entry ? (
          <Box component="li" role="none" key={entry.said} sx={{ px: 2, py: 1, color: 'text.secondary' }}>
            {entry.said}
          </Box>
        ) : (
          <MenuItem
            key={entry.words}
            sx={{ minHeight: 44 }}
            onClick={() => {
              onClose();
              entry.does();
            }}
          >
            {entry.words}
          </MenuItem>
        ),
      )}
    </Menu>
  );
}
