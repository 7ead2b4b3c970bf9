export { ShopScreen as default } from '../shop/ShopScreen';
