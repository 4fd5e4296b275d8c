export const ROLES = ['technician', 'lead', 'office', 'viewer'] as const;
export type Role = (typeof ROLES)[number];

/** Whoever is signed in. */
export interface Member {
	id: string;
	name: string;
	username: string;
	role: Role;
}

/** Viewers read; technicians and leads add whatever they see and do to threads. */
export const mayWrite = ({ role }: Pick<Member, 'role'>): boolean => role === 'technician' || role === 'lead';
/** Whoever takes vehicles in and speaks with customers: the office too, which adds nothing else. */
export const mayTakeIn = ({ role }: Pick<Member, 'role'>): boolean => role !== 'viewer';
/** Only a lead signs a case off. */
export const maySign = (member: Pick<Member, 'role'>): boolean => member.role === 'lead';
/** Only a lead writes the shop's own words on codes and brings in packs: everybody works by them. */
export const mayEditCodes = (member: Member): boolean => member.role === 'lead';
