import { sql } from 'drizzle-orm';
import type { UnitChoice } from '../../core/units/units';
import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

const moment = (name: string) => integer(name, { mode: 'timestamp' });

// Accounts: the columns that the sign-in library expects.

export const user = sqliteTable('user', {
	id: text('id').primaryKey(),
	name: text('name').notNull(),
	email: text('email').notNull().unique(),
	emailVerified: integer('email_verified', { mode: 'boolean' }).notNull().default(false),
	image: text('image'),
	username: text('username').unique(),
	displayUsername: text('display_username'),
	role: text('role', { enum: ['technician', 'lead', 'office', 'viewer'] })
		.notNull()
		.default('viewer'),
	/** Shut out: signs in no more, and what it did stays. */
	banned: integer('banned', { mode: 'boolean' }).default(false),
	banReason: text('ban_reason'),
	banExpires: moment('ban_expires'),
	twoFactorEnabled: integer('two_factor_enabled', { mode: 'boolean' }).default(false),
	/** It is another program with a token, and nobody who signs in. */
	program: integer('program', { mode: 'boolean' }).notNull().default(false),
	/** Hash of the six digits that open a locked screen again; null = a locked screen asks for the whole sign-in. */
	quickCode: text('quick_code'),
	/** How they read and type distances, pressures and the like; null = as the shop does. */
	units: text('units', { mode: 'json' }).$type<UnitChoice>(),
	createdAt: moment('created_at').notNull(),
	updatedAt: moment('updated_at').notNull()
});

export const session = sqliteTable(
	'session',
	{
		id: text('id').primaryKey(),
		expiresAt: moment('expires_at').notNull(),
		token: text('token').notNull().unique(),
		createdAt: moment('created_at').notNull(),
		updatedAt: moment('updated_at').notNull(),
		ipAddress: text('ip_address'),
		userAgent: text('user_agent'),
		impersonatedBy: text('impersonated_by'),
		/** Since when its screen is locked; null = open. */
		lockedAt: text('locked_at'),
		userId: text('user_id')
			.notNull()
			.references(() => user.id, { onDelete: 'cascade' })
	},
	(table) => [index('session_user').on(table.userId)]
);

export const account = sqliteTable(
	'account',
	{
		id: text('id').primaryKey(),
		accountId: text('account_id').notNull(),
		providerId: text('provider_id').notNull(),
		userId: text('user_id')
			.notNull()
			.references(() => user.id, { onDelete: 'cascade' }),
		accessToken: text('access_token'),
		refreshToken: text('refresh_token'),
		idToken: text('id_token'),
		accessTokenExpiresAt: moment('access_token_expires_at'),
		refreshTokenExpiresAt: moment('refresh_token_expires_at'),
		scope: text('scope'),
		password: text('password'),
		createdAt: moment('created_at').notNull(),
		updatedAt: moment('updated_at').notNull()
	},
	(table) => [index('account_user').on(table.userId)]
);

export const verification = sqliteTable('verification', {
	id: text('id').primaryKey(),
	identifier: text('identifier').notNull(),
	value: text('value').notNull(),
	expiresAt: moment('expires_at').notNull(),
	createdAt: moment('created_at'),
	updatedAt: moment('updated_at')
});

/** Second factors: what the sign-in library expects; secret and codes are encrypted with the server's own secret. */
export const twoFactor = sqliteTable(
	'two_factor',
	{
		id: text('id').primaryKey(),
		secret: text('secret').notNull(),
		backupCodes: text('backup_codes').notNull(),
		userId: text('user_id')
			.notNull()
			.references(() => user.id, { onDelete: 'cascade' }),
		verified: integer('verified', { mode: 'boolean' }).default(true),
		failedVerificationCount: integer('failed_verification_count').default(0),
		lockedUntil: moment('locked_until')
	},
	(table) => [index('two_factor_user').on(table.userId), index('two_factor_secret').on(table.secret)]
);

/** Ways in that a lead has opened: whoever has the code chooses the password. Only its hash is kept. */
export const invitation = sqliteTable('invitation', {
	userId: text('user_id')
		.primaryKey()
		.references(() => user.id, { onDelete: 'cascade' }),
	hash: text('hash').notNull().unique(),
	expiresAt: text('expires_at').notNull()
});

/** Tokens of other programs; only the hash of each is kept. */
export const apiToken = sqliteTable('api_token', {
	id: text('id').primaryKey(),
	/** Who its entries are by. */
	userId: text('user_id')
		.notNull()
		.references(() => user.id),
	hash: text('hash').notNull().unique(),
	scopes: text('scopes', { mode: 'json' }).notNull(),
	madeBy: text('made_by').notNull(),
	madeAt: text('made_at').notNull(),
	lastUsedAt: text('last_used_at'),
	revokedAt: text('revoked_at')
});

/** Who changed whom and what for the whole shop. Rows are only ever added: triggers in the migrations refuse the rest. */
export const adminAct = sqliteTable(
	'admin_act',
	{
		seq: integer('seq').primaryKey({ autoIncrement: true }),
		at: text('at').notNull(),
		byId: text('by_id').notNull(),
		byName: text('by_name').notNull(),
		what: text('what').notNull(),
		/** Whom or what it was done to, and to what it was changed, JSON; never a secret. */
		facts: text('facts', { mode: 'json' }).notNull()
	},
	(table) => [index('admin_act_at').on(table.at)]
);

// The shop.

export const vehicle = sqliteTable(
	'vehicle',
	{
		id: text('id').primaryKey(),
		/** Key into the library's vehicle types, or into what this shop has described. */
		typeId: text('type_id').notNull(),
		/** What its type is called, where the library does not know it. */
		typeName: text('type_name'),
		/** What the shop calls it: "school minibus". */
		nickname: text('nickname').notNull(),
		plate: text('plate').notNull(),
		vin: text('vin'),
		/** Where its diagnostic interface answers, `host:port`. */
		linkAddress: text('link_address'),
		/** Control panel of a simulated vehicle, `host:port`; null for a real one. */
		standInAddress: text('stand_in_address'),
		/** Grows with each change of what it is called by. */
		version: integer('version').notNull().default(1),
		createdAt: text('created_at').notNull()
	},
	(table) => [
		index('vehicle_nickname').on(table.nickname),
		index('vehicle_type').on(table.typeId),
		index('vehicle_vin').on(table.vin),
		index('vehicle_plate').on(sql`replace(upper(plate), ' ', '')`)
	]
);

/**
 * Whoever brings vehicles in. They stand apart from the threads, which name them by their id alone: what is on a thread stays for
 * ever, and whoever asks to be forgotten is taken out whole.
 */
export const customer = sqliteTable('customer', {
	/** What its names are found by. */
	number: integer('number').primaryKey({ autoIncrement: true }),
	/** Made by the client: sent twice, they are one. */
	id: text('id').notNull().unique(),
	name: text('name').notNull(),
	phone: text('phone').notNull().default(''),
	email: text('email').notNull().default(''),
	address: text('address').notNull().default(''),
	note: text('note').notNull().default(''),
	/** What they may be written to or called for. */
	consent: text('consent', { enum: ['job', 'reminders', 'nothing'] })
		.notNull()
		.default('job'),
	/** How they said so, and when. */
	consentHow: text('consent_how').notNull().default(''),
	/** What they are found by, as the index has it. */
	names: text('names').notNull().default(''),
	/** Grows with each change. */
	version: integer('version').notNull().default(1),
	createdAt: text('created_at').notNull()
});

/** What customers and vehicles were before they were changed, and who changed them. */
export const recordPast = sqliteTable(
	'record_past',
	{
		of: text('of', { enum: ['customer', 'vehicle'] }).notNull(),
		id: text('id').notNull(),
		/** The version that was ended. */
		version: integer('version').notNull(),
		was: text('was', { mode: 'json' }).notNull(),
		changedBy: text('changed_by').notNull(),
		changedAt: text('changed_at').notNull()
	},
	(table) => [primaryKey({ columns: [table.of, table.id, table.version] })]
);

/** What this shop has described and corrected; nothing is taken away, a correction is a further version. */
export const vehicleDescription = sqliteTable(
	'vehicle_description',
	{
		id: text('id').notNull(),
		version: integer('version').notNull(),
		/** In full, as `docs/formats/vehicle.schema.json` says. */
		description: text('description', { mode: 'json' }).notNull(),
		/** What was changed, or how it is known. */
		because: text('because').notNull().default(''),
		madeBy: text('made_by').notNull(),
		madeAt: text('made_at').notNull()
	},
	(table) => [primaryKey({ columns: [table.id, table.version] })]
);

export const caseRecord = sqliteTable(
	'case_record',
	{
		id: text('id').primaryKey(),
		/** Running number shown to people as TP-0418. */
		number: integer('number').notNull().unique(),
		vehicleId: text('vehicle_id')
			.notNull()
			.references(() => vehicle.id),
		createdAt: text('created_at').notNull(),
		/** When the customer wants it back, in words. */
		wanted: text('wanted').notNull().default(''),
		/** The shop that it was brought in from; null = it is this shop's own. Only its own count in what a shop has done. */
		fromShop: text('from_shop'),
		/** Public key that its bundle was signed with; null = it was not signed, or it is this shop's own. */
		fromKey: text('from_key'),
		/** How many entries it was brought in with: those are by people of that shop. */
		fromEntries: integer('from_entries').notNull().default(0),
		/** It is being brought in: shown to nobody until its thread stands, and taken away at a start that finds it so. */
		comingIn: integer('coming_in', { mode: 'boolean' }).notNull().default(false),
		/** Why its thread is no longer as it was written; null = whole as far as it was looked at. */
		chainBroken: text('chain_broken'),
		// What the floor shows of the thread, kept beside it and rebuilt from it whenever `summarySeq` lags behind.
		signed: integer('signed', { mode: 'boolean' }).notNull().default(false),
		/** When it is promised; null = no moment is. */
		dueAt: text('due_at'),
		/** A code came back after a repair, or the whole case did. */
		isBack: integer('is_back', { mode: 'boolean' }).notNull().default(false),
		/** Account of whoever has it; null = nobody. */
		withId: text('with_id'),
		/** What keeps the work from going on; null = nothing. */
		waitsFor: text('waits_for'),
		/** All that is left is a signature. */
		toSign: integer('to_sign', { mode: 'boolean' }).notNull().default(false),
		/** The customer is to be asked whether the work may cost what it does. */
		toAsk: integer('to_ask', { mode: 'boolean' }).notNull().default(false),
		/** Who brought it in; null = nobody said. */
		customerId: text('customer_id'),
		summary: text('summary', { mode: 'json' }),
		summarySeq: integer('summary_seq').notNull().default(0),
		/** Stamp of what was known of codes when it was made; empty = made before that was kept. */
		summaryKnown: text('summary_known').notNull().default('')
	},
	(table) => [
		// What the floor and the closed cases are paged by.
		index('case_listed').on(table.comingIn, table.signed, table.number),
		index('case_vehicle').on(table.vehicleId),
		index('case_customer').on(table.customerId),
		index('case_foreign')
			.on(table.id)
			.where(sql`from_shop IS NOT NULL`)
	]
);

/** The threads. Rows are only ever added: triggers in the migrations refuse any change or removal. */
export const entry = sqliteTable(
	'entry',
	{
		id: text('id').primaryKey(),
		caseId: text('case_id')
			.notNull()
			.references(() => caseRecord.id),
		seq: integer('seq').notNull(),
		kind: text('kind').notNull(),
		version: integer('version').notNull(),
		authorId: text('author_id')
			.notNull()
			.references(() => user.id),
		authorName: text('author_name').notNull(),
		observedAt: text('observed_at').notNull(),
		receivedAt: text('received_at').notNull(),
		payload: text('payload').notNull(),
		supersedes: text('supersedes'),
		previousHash: text('previous_hash').notNull(),
		hash: text('hash').notNull()
	},
	(table) => [
		uniqueIndex('entry_case_seq').on(table.caseId, table.seq),
		index('entry_kind').on(table.kind),
		// Whether a case is signed is asked at every append, whatever the length of its thread.
		index('entry_case_kind').on(table.caseId, table.kind),
		// What is asked of all threads at once is asked of few entries of each: they are found without reading the others.
		index('entry_comeback')
			.on(sql`json_extract(payload, '$.comebackOf.caseId')`)
			.where(sql`kind = 'case-opened' AND json_extract(payload, '$.comebackOf.caseId') IS NOT NULL`),
		index('entry_vin')
			.on(sql`json_extract(payload, '$.vin')`)
			.where(sql`kind = 'vehicle-checked'`),
		index('entry_timed')
			.on(sql`json_extract(payload, '$.test')`, sql`json_extract(payload, '$.minutes')`, table.caseId)
			.where(sql`kind = 'test-step' AND json_extract(payload, '$.how') = 'done'`)
	]
);

/**
 * Work on a vehicle that is under way, written down as it goes: if the server dies in the middle, what was done until
 * then is put on the thread at the next start.
 */
export const linkJob = sqliteTable('link_job', {
	id: text('id').primaryKey(),
	caseId: text('case_id')
		.notNull()
		.references(() => caseRecord.id),
	kind: text('kind', { enum: ['scan', 'find', 'clear', 'calibrate', 'key'] }).notNull(),
	authorId: text('author_id')
		.notNull()
		.references(() => user.id),
	startedAt: text('started_at').notNull(),
	/** The entry's payload as far as it has come, JSON. */
	draft: text('draft').notNull(),
	updatedAt: text('updated_at')
		.notNull()
		.default(sql`CURRENT_TIMESTAMP`)
});

/** Servers that share this database, where it is on another machine: each says now and then that it lives. */
export const peer = sqliteTable('peer', {
	id: text('id').primaryKey(),
	/** Where it is reached. */
	origin: text('origin').notNull(),
	/** By the database's own clock, s. */
	seenAt: integer('seen_at').notNull()
});

/** Vehicles that somebody is at, each by one piece of work of one server. */
export const vehicleHold = sqliteTable(
	'vehicle_hold',
	{
		/** Of its interface. */
		address: text('address').primaryKey(),
		/** The entry that the work will become. */
		jobId: text('job_id').notNull(),
		peerId: text('peer_id').notNull(),
		byName: text('by_name').notNull()
	},
	(table) => [index('vehicle_hold_job').on(table.jobId)]
);

/** Work of a stopped server that its thread did not take: kept whole until a lead has looked at it. */
export const putAside = sqliteTable(
	'put_aside',
	{
		id: text('id').primaryKey(),
		caseId: text('case_id')
			.notNull()
			.references(() => caseRecord.id),
		kind: text('kind').notNull(),
		authorName: text('author_name').notNull(),
		/** The entry's payload as far as it had come, as it was written down. */
		draft: text('draft').notNull(),
		why: text('why').notNull(),
		at: text('at').notNull(),
		/** The lead who has looked at it; null = nobody yet. */
		seenBy: text('seen_by')
	},
	(table) => [index('put_aside_seen').on(table.seenBy)]
);

/** Recordings of live data; their samples are in pieces beside them, their meaning in the entry of the same id. */
export const capture = sqliteTable(
	'capture',
	{
		id: text('id').primaryKey(),
		caseId: text('case_id')
			.notNull()
			.references(() => caseRecord.id),
		authorId: text('author_id')
			.notNull()
			.references(() => user.id),
		startedAt: text('started_at').notNull(),
		name: text('name').notNull(),
		/** What it is made for, JSON; null = nobody said. */
		purpose: text('purpose', { mode: 'json' }),
		/** Marks so far, JSON. */
		marks: text('marks').notNull().default('[]'),
		/** False while it is being recorded: a server that finds it so at its start ends it. */
		whole: integer('whole', { mode: 'boolean' }).notNull().default(false)
	},
	(table) => [index('capture_case').on(table.caseId), index('capture_open').on(table.whole)]
);

/** Pieces of a recording, compressed columns (format JLC1). */
export const captureChunk = sqliteTable(
	'capture_chunk',
	{
		captureId: text('capture_id')
			.notNull()
			.references(() => capture.id, { onDelete: 'cascade' }),
		seq: integer('seq').notNull(),
		bytes: blob('bytes', { mode: 'buffer' }).notNull(),
		/** Name in the object store, where the bytes lie there; null = they are here. */
		stored: text('stored')
	},
	(table) => [primaryKey({ columns: [table.captureId, table.seq] })]
);

/** Photos of what was looked at, drawn anew when they came in: nothing of the camera's own data is kept. */
export const photo = sqliteTable(
	'photo',
	{
		id: text('id').primaryKey(),
		caseId: text('case_id')
			.notNull()
			.references(() => caseRecord.id),
		authorId: text('author_id')
			.notNull()
			.references(() => user.id),
		takenInAt: text('taken_in_at').notNull(),
		sha256: text('sha256').notNull(),
		width: integer('width').notNull(),
		height: integer('height').notNull(),
		bytes: blob('bytes', { mode: 'buffer' }).notNull(),
		/** Name in the object store, where the bytes lie there; null = they are here. */
		stored: text('stored')
	},
	(table) => [index('photo_case').on(table.caseId)]
);

/** What a person said the columns of a kind of file are, by its header. */
export const columnMemory = sqliteTable('column_memory', {
	headerKey: text('header_key').primaryKey(),
	/** JSON. */
	mapping: text('mapping').notNull(),
	authorName: text('author_name').notNull(),
	savedAt: text('saved_at').notNull()
});

/** Signals that the shop has found in broadcast frames: which bits of which identifier are what. */
export const frameSignal = sqliteTable('frame_signal', {
	id: text('id').primaryKey(),
	/** JSON. */
	rule: text('rule').notNull(),
	authorName: text('author_name').notNull(),
	savedAt: text('saved_at').notNull()
});

// What is known of codes.

/** A source of code definitions: shipped with Jaldi, brought in as a file, or the shop's own. */
export const codePack = sqliteTable('code_pack', {
	id: text('id').primaryKey(),
	name: text('name').notNull(),
	source: text('source').notNull(),
	/** State of the source, YYYY-MM-DD. */
	date: text('date').notNull(),
	/** Whether what sets its codes is stated by the source, or typical and ours. */
	conditions: text('conditions', { enum: ['stated', 'typical'] })
		.notNull()
		.default('stated'),
	maker: text('maker'),
	origin: text('origin', { enum: ['shipped', 'imported', 'shop'] }).notNull(),
	/** Hash of a shipped pack's content: it is laid down anew when that changes. */
	contentHash: text('content_hash'),
	addedBy: text('added_by'),
	addedAt: text('added_at').notNull()
});

/**
 * Definitions, every version of them. Triggers in the migrations keep the full-text index `code_search` in step with the
 * rows that are current.
 */
export const codeDefinition = sqliteTable(
	'code_definition',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		packId: text('pack_id')
			.notNull()
			.references(() => codePack.id, { onDelete: 'cascade' }),
		code: text('code').notNull(),
		/** Empty = whatever the suffix. */
		failureType: text('failure_type').notNull().default(''),
		version: integer('version').notNull().default(1),
		current: integer('current', { mode: 'boolean' }).notNull().default(true),
		title: text('title').notNull(),
		causes: text('causes').notNull(),
		notes: text('notes').notNull(),
		/** The whole definition, JSON. */
		body: text('body').notNull(),
		authorName: text('author_name'),
		/** Why this version replaced the one before. */
		why: text('why'),
		createdAt: text('created_at').notNull()
	},
	(table) => [
		uniqueIndex('definition_version').on(table.packId, table.code, table.failureType, table.version),
		index('definition_code').on(table.code, table.current)
	]
);

/** Which codes each case had, kept beside its thread and rebuilt with its summary. */
export const caseCode = sqliteTable(
	'case_code',
	{
		caseId: text('case_id')
			.notNull()
			.references(() => caseRecord.id),
		code: text('code').notNull(),
		failureType: text('failure_type').notNull(),
		moduleName: text('module_name').notNull(),
		verdict: text('verdict').notNull()
	},
	(table) => [
		uniqueIndex('case_code_once').on(table.caseId, table.code, table.failureType, table.moduleName),
		index('case_code_case').on(table.code, table.caseId)
	]
);

/** The key pair that this shop signs its bundles with (Ed25519, PEM); one row. */
export const shopKey = sqliteTable('shop_key', {
	id: integer('id').primaryKey(),
	publicKey: text('public_key').notNull(),
	privateKey: text('private_key').notNull(),
	madeAt: text('made_at').notNull()
});

/** Keys of other shops whose bundles a lead trusts. */
export const trustedShop = sqliteTable('trusted_shop', {
	publicKey: text('public_key').primaryKey(),
	name: text('name').notNull(),
	trustedBy: text('trusted_by').notNull(),
	trustedAt: text('trusted_at').notNull()
});

/** What a lead has decided for the whole shop, by name. */
export const shopSetting = sqliteTable('shop_setting', {
	name: text('name').primaryKey(),
	value: text('value', { mode: 'json' }).notNull(),
	changedBy: text('changed_by').notNull(),
	changedAt: text('changed_at').notNull()
});

/** How long each case may still take, worked out beside its thread and anew when the thread has grown. */
export const caseOutlook = sqliteTable('case_outlook', {
	caseId: text('case_id')
		.primaryKey()
		.references(() => caseRecord.id),
	/** Length of the thread that it was worked out from. */
	seq: integer('seq').notNull(),
	/** Stamp of all that this shop knew besides the thread; empty = worked out before it was kept. */
	known: text('known').notNull().default(''),
	meanMinutes: integer('mean_minutes'),
	lowMinutes: integer('low_minutes'),
	highMinutes: integer('high_minutes'),
	/** Where the newest entry made the mean at least twice or half of what it was: what it was, and which entry did it. */
	wasMinutes: integer('was_minutes'),
	turnedAt: integer('turned_at'),
	/** The next step, as the reasoning has it; null = as the thread's order says. */
	nextTitle: text('next_title'),
	nextWhy: text('next_why'),
	/** Where it is done, below the case; null = on Reason. */
	nextPath: text('next_path')
});
