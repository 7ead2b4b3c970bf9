import * as Comlink from 'comlink';
import { makeSuspecting } from '../suspects/suspecting';
import { tableFromServer } from '../suspects/serverTable';
import { keepTable, keptTable } from '../suspects/tableStore';

Comlink.expose(
  makeSuspecting(
    {
      read: keptTable,
      keep: (rigKey, table) => keepTable(rigKey, table, Date.now()),
      fromServer: tableFromServer,
    },
    () => performance.now(),
  ),
);
