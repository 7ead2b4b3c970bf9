export { CoupleScreen as default } from '../rig/CoupleScreen';
