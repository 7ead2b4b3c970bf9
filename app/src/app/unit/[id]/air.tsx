export { AirScreen as default } from '../../../air/AirScreen';
