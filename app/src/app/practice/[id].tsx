export { PracticeVisitScreen as default } from '../../practice/PracticeVisitScreen';
