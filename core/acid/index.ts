export {
  type AcidityReading,
  EQUILIBRIUM_HOURS,
  PH_ACT,
  PH_UNCERTAINTY,
  PH_LIMIT,
  PH_PAPER_LIMIT,
  SAMPLE_TEMP_C,
  evidenceFaults,
} from './ph.ts';
