export { CoupleScreen as default } from '../couple/CoupleScreen';
