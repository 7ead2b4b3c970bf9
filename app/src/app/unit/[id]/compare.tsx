export { CompareScreen as default } from '../../../compare/CompareScreen';
