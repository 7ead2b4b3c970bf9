export { VisitScreen as default } from '../../visit/VisitScreen';
