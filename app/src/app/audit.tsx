export { AuditScreen as default } from '../shop/AuditScreen';
