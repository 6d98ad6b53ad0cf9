import { describe, expect, it } from 'vitest';
import { findZones, offsetWords, zoneOf, type Zone } from './zones';

const zone = (id: string, country: string, also: string[] = []): Zone => ({
  id,
  city: (id.split('/').at(-1) ?? id).replaceAll('_', ' '),
  country,
  also,
  offset: 0,
});
const zones = [
  zone('America/Argentina/Buenos_Aires', 'Argentina', ['America/Buenos_Aires']),
  zone('America/Sao_Paulo', 'Brazil', ['Brazil/East']),
  zone('Asia/Kolkata', 'India', ['Asia/Calcutta']),
  zone('Europe/Kyiv', 'Ukraine', ['Europe/Kiev']),
  zone('Indian/Maldives', 'Maldives'),
];
const found = (typed: string): string[] => findZones(zones, typed).map((one) => one.id);

describe('zones by what is typed', () => {
  it('are found by city, country and former names', () => {
    expect(found('kyiv')).toEqual(['Europe/Kyiv']);
    expect(found('Kiev')).toEqual(['Europe/Kyiv']);
    expect(found('calcutta')).toEqual(['Asia/Kolkata']);
    expect(found('buenos ai')).toEqual(['America/Argentina/Buenos_Aires']);
    expect(found('São')).toEqual(['America/Sao_Paulo']);
    expect(found('Ukraine')).toEqual(['Europe/Kyiv']);
    expect(found('nowhere')).toEqual([]);
  });

  it('have those first whose city begins so', () => {
    expect(found('k')).toEqual(['Europe/Kyiv', 'Asia/Kolkata'].reverse());
    expect(found('ind')).toEqual(['Asia/Kolkata', 'Indian/Maldives']);
  });

  it('are known by a former id', () => {
    expect(zoneOf(zones, 'Europe/Kiev')?.id).toBe('Europe/Kyiv');
    expect(zoneOf(zones, 'Europe/Atlantis')).toBeUndefined();
  });

  it('say how far they are from UTC', () => {
    expect([0, 60, 330, -210].map(offsetWords)).toEqual(['UTC', 'UTC+1', 'UTC+5:30', 'UTC−3:30']);
  });
});
