export { PlanScreen as default } from '../../../plan/PlanScreen';
