export * from './kitchen/index.ts';
export * from './recipes/index.ts';
export * from './stores/index.ts';
export * from './batches/index.ts';
export * from './checks/index.ts';
export * from './labels/index.ts';
export * from './records/index.ts';
export {
  type AnyEndpoint,
  type BodyOf,
  type Caller,
  type Endpoint,
  type FileReply,
  type ParamsOf,
  type QueryOf,
  type ReplyOf,
  type Upload,
  inKitchen,
} from './endpoint.ts';
export { type Problem, JSON_LIMIT, PERSON_HEADER, PIN_HEADER, SERVER_TIME_HEADER } from './problem.ts';
export { type Rule, MOST_FAULTS, check, uuid } from './rules.ts';
