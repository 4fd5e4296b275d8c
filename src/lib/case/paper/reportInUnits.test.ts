import { describe, expect, it } from 'vitest';
import { SI, unitsOf } from '../../core/units/units';
import { projectCase } from '../progress/project';
import { ThreadMaker } from '../thread/threads.fixture';
import { caseReport } from './report';
import { reportInUnits } from './reportInUnits';

const MILES = unitsOf({ distance: 'mi', pressure: 'psi', torque: 'lb·ft', temperature: '°F', length: 'in' });

function report() {
	const maker = new ThreadMaker();
	maker.add('complaint', { words: 'Lamp on from 60 km/h', symptoms: [], conditions: [], atKmh: 60 });
	maker.add('vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 84_210 });
	maker.add('note', { text: 'Not below 30 km/h' });
	maker.add('proving-drive', {
		distanceKm: 3,
		topSpeedKmh: 60,
		stops: 1,
		road: 'dry',
		driver: '',
		note: ''
	});
	return caseReport(maker.thread, projectCase(maker.thread), null);
}

describe('a report in the units of a shop', () => {
	it('has what we say in them, and what was said as it was said', () => {
		const said = reportInUnits(report(), MILES);
		const evidence = said.evidence.map(({ title, detail }) => `${title}: ${detail}`);
		expect(evidence.join('\n')).toContain('52,326 mi');
		expect(evidence.join('\n')).toContain('Proving drive, 2 mi: up to 37 mph');
		expect(evidence).toContain('Complaint: Lamp on from 60 km/h');
		expect(evidence).toContain('Note: Not below 30 km/h');
		expect(said.complaint.words).toBe('Lamp on from 60 km/h');
	});

	it('keeps its numbers and its hashes, and is the same where the units are those it is kept in', () => {
		const made = report();
		const said = reportInUnits(made, MILES);
		expect(said.vehicle?.odometerKm).toBe(84_210);
		expect(said.evidence.map(({ hash }) => hash)).toEqual(made.evidence.map(({ hash }) => hash));
		expect(reportInUnits(made, SI)).toEqual(made);
	});
});
