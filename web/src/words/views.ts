import { en } from './en.ts';
import { wordsFrom } from './index.ts';
import { viewsEn } from './views.en.ts';

/** Every message of the interface. */
export const messages = { ...en, ...viewsEn };
/** Name of a message. */
export type MessageId = keyof typeof messages;

/** The words of the views: what opens later brings its own along, so that the first page need not. */
export const { say, misread } = wordsFrom(messages);
