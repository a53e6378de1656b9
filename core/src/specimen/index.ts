export {
  SPECIMEN_CARE,
  WOUND_PLACES,
  specimenFindings,
  specimenWeight,
  type Specimen,
  type SpecimenCare,
  type SpecimenFinding,
  type SpecimenWeighing,
  type SpecimenWeight,
  type Tare,
  type Wound,
  type WoundPlace,
} from './specimen.ts';
