export { DrainRoundScreen as default } from '../water/DrainRoundScreen';
