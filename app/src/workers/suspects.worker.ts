import * as Comlink from 'comlink';
import { makeSuspecting } from '../suspects/suspecting';
import { keepTable, keptTable } from '../suspects/tableStore';

Comlink.expose(
  makeSuspecting(
    { read: keptTable, keep: (rigKey, table) => keepTable(rigKey, table, Date.now()) },
    () => performance.now(),
  ),
);
