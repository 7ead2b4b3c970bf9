export { pointsAt, symptoms, type Pointed, type Symptom } from './symptoms';
