import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Box, IconButton } from '@mui/material';
import { type ReactNode, useRef } from 'react';
import { say } from '../../words/views.ts';

/**
 * Rows in an order that can be changed: by dragging the handle, by the keys of the handle (space, arrows, space), or by
 * buttons that do the same.
 */
export function SortableRows({
  ids,
  what,
  onMove,
  children,
}: {
  ids: string[];
  /** What a row is called, "ingredient". */
  what: string;
  onMove: (from: number, to: number) => void;
  children: (id: string, index: number) => ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const heard = useRef<string | number | null>(null);
  const place = (id: string | number) => ids.indexOf(String(id)) + 1;
  return (
    <DndContext
      sensors={sensors}
      accessibility={{
        announcements: {
          onDragStart: ({ active }) => {
            heard.current = active.id;
            return say('rows.taken', { what, at: place(active.id) });
          },
          onDragOver: ({ over }) => {
            // Taking a row up puts it over its own place at once: said then, it would drown "taken up".
            if (!over || over.id === heard.current) return undefined;
            heard.current = over.id;
            return say('rows.over', { at: place(over.id) });
          },
          onDragEnd: ({ over }) => say('rows.put', { at: over ? place(over.id) : 0 }),
          onDragCancel: () => say('rows.left'),
        },
        screenReaderInstructions: { draggable: say('rows.keys') },
      }}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (!over || active.id === over.id) return;
        onMove(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {ids.map((id, i) => (
          <Row key={id} id={id} index={i} count={ids.length} what={what} onMove={onMove}>
            {children(id, i)}
          </Row>
        ))}
      </SortableContext>
    </DndContext>
  );
}

function Row({
  id,
  index,
  count,
  what,
  onMove,
  children,
}: {
  id: string;
  index: number;
  count: number;
  what: string;
  onMove: (from: number, to: number) => void;
  children: ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id });
  const name = `${what} ${index + 1}`;
  return (
    <Box
      ref={setNodeRef}
      role="group"
      aria-label={`${what.charAt(0).toUpperCase()}${what.slice(1)} ${index + 1}`}
      style={{ transform: CSS.Transform.toString(transform), transition: transition ?? undefined }}
      sx={{
        display: 'flex',
        gap: 1,
        py: 1.75,
        borderBottom: 1,
        borderColor: 'rule.main',
        bgcolor: isDragging ? 'aub.tint' : 'transparent',
        position: 'relative',
        zIndex: isDragging ? 2 : 'auto',
      }}
    >
      <Box sx={{ flex: 'none', display: 'grid', justifyItems: 'center', alignContent: 'start', width: 34 }}>
        <IconButton
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={`Drag ${name}`}
          size="small"
          sx={{ cursor: 'grab', touchAction: 'none' }}
        >
          <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
            {[4, 9, 14].map(y => (
              <path
                key={y}
                d={`M3 ${y}h12`}
                stroke="currentColor"
                strokeWidth="1.800"
                strokeLinecap="round"
              />
            ))}
          </svg>
        </IconButton>
        <Move name={`Up: ${name}`} up disabled={index === 0} onClick={() => onMove(index, index - 1)} />
        <Move
          name={`Down: ${name}`}
          disabled={index === count - 1}
          onClick={() => onMove(index, index + 1)}
        />
      </Box>
      <Box sx={{ flex: 1, minWidth: 0 }}>{children}</Box>
    </Box>
  );
}

function Move({
  name,
  up = false,
  disabled,
  onClick,
}: {
  name: string;
  up?: boolean;
  disabled: boolean;
  onClick: () => void;
}) {
  return (
    <IconButton size="small" aria-label={name} disabled={disabled} onClick={onClick}>
      <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
        <path
          d={up ? 'M3 10l5-5 5 5' : 'M3 6l5 5 5-5'}
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      </svg>
    </IconButton>
  );
}
