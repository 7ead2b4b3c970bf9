export { WaterScreen as default } from '../../../water/WaterScreen';
