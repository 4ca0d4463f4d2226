import { useSettings } from '../stores/settings'
import * as units from '../units'

/** Lengths, numbers, days and sentences as whoever reads writes them: unit, fractions and language are the settings'. */
export function useSay() {
  const settings = useSettings()
  return {
    get unit() {
      return settings.unit
    },
    length: (mm: number, digits?: number) => units.lengthText(mm, settings.style, digits),
    short: (mm: number) => units.shortText(mm, settings.style),
    size: (width: number, height: number) =>
      `${units.shortText(width, settings.style)} × ${units.shortText(height, settings.style)}`,
    signed: (mm: number, digits?: number) => units.signedText(mm, settings.style, digits),
    within: (mm: number) => units.withinText(mm, settings.style),
    sentence: (text: string) => units.sentenceText(text, settings.style),
    figures: (text: string) => units.figuresOnly(text, settings.style),
    number: (value: number, digits: number, least?: number) =>
      units.roundedText(value, digits, settings.style, least),
    edit: (typed: string, typedUnit: units.Unit) => units.editText(typed, typedUnit, settings.unit),
    date: (iso: string) => units.dateText(iso, settings.style),
    moment: (iso: string) => units.momentText(iso, settings.style),
    /** How far a beam goes: metres, or feet. */
    far: (mm: number) =>
      settings.unit === 'mm'
        ? `${units.roundedText(mm / 1000, 2, settings.style)} m`
        : `${units.roundedText(mm / 304.8, 1, settings.style)} ft`,
    area: (mm2: number, of?: 'part' | 'board') => units.areaText(mm2, settings.style, of),
    mass: (grams: number) => units.massText(grams, settings.style),
    time: units.timeText,
  }
}
