export { LessonsScreen as default } from '../jobs/LessonsScreen';
