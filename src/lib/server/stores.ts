import { CaseMemory } from './cases/loadedCase';
import { Captures } from './db/captures';
import { Cases } from './db/cases';
import { CodeLibrary } from './db/codeLibrary';
import { ColumnMemory } from './db/columnMemory';
import { FrameSignals } from './db/frameSignals';
import { GoodReadings } from './db/goodReadings';
import { Customers } from './db/customers';
import type { Database } from './db/open';
import { Photos } from './db/photos';
import { PutAside } from './db/putAside';
import { ReasonBooks } from './db/reasonBooks';
import { ShopKeys } from './db/shopKeys';
import { ShopSettings } from './db/shopSettings';
import { Threads } from './db/threads';
import { TrackRecord } from './db/trackRecord';
import { Vehicles } from './db/vehicles';
import { VehicleDescriptions } from './db/vehicleDescriptions';
import type { ObjectStore } from '../objects/objectStore';
import { Shelf } from './objects/shelf';
import { Turns } from './turns';

/** All that is stored, made once for each thread of the server, and what was worked out from it. */
export interface Stores {
	db: Database;
	threads: Threads;
	cases: Cases;
	codes: CodeLibrary;
	captures: Captures;
	columnMemory: ColumnMemory;
	customers: Customers;
	frameSignals: FrameSignals;
	goodReadings: GoodReadings;
	photos: Photos;
	settings: ShopSettings;
	shopKeys: ShopKeys;
	putAside: PutAside;
	reasonBooks: ReasonBooks;
	trackRecord: TrackRecord;
	vehicleDescriptions: VehicleDescriptions;
	vehicles: Vehicles;
	/** Where samples and photos lie. */
	shelf: Shelf;
	memory: CaseMemory;
	/** Who goes first on this thread. */
	turns: Turns;
	/** Where this server is reached, for papers that lead back to it. */
	origin: string;
}

/**
 * @param objects where large pieces lie; null = in the database
 * @param turns of this thread, where it works for several shops
 */
export function storesOn(
	db: Database,
	origin: string,
	objects: ObjectStore | null = null,
	turns = new Turns()
): Stores {
	const shelf = new Shelf(objects);
	const threads = new Threads(db);
	const codes = new CodeLibrary(db);
	return {
		db,
		threads,
		codes,
		cases: new Cases(db, threads, codes),
		captures: new Captures(db, shelf),
		columnMemory: new ColumnMemory(db),
		customers: new Customers(db),
		frameSignals: new FrameSignals(db),
		goodReadings: new GoodReadings(db),
		photos: new Photos(db, shelf),
		settings: new ShopSettings(db),
		shopKeys: new ShopKeys(db),
		putAside: new PutAside(db),
		reasonBooks: new ReasonBooks(db),
		trackRecord: new TrackRecord(db),
		vehicleDescriptions: new VehicleDescriptions(db),
		vehicles: new Vehicles(db),
		shelf,
		memory: new CaseMemory(),
		turns,
		origin
	};
}
