/** A change of the schema: a fixed name, forward only, never edited once landed. */
export interface Migration {
  name: string;
  up: string;
}
