/** The columns of what the production knows of its things. */
import { money, type StockRow } from '../../lib/packing'
import type { Unit } from '../../lib/types'
import { weightUnit, weightWords } from '../../lib/weights'
import type { Column } from '../grid/columns'

export function stockColumns(currency: string, hireDays: number, unit: Unit): Column<StockRow>[] {
  const price = (key: 'per_day' | 'per_week' | 'to_buy', title: string, name: string): Column<StockRow> => ({
    key, title, name, kind: 'number', size: 7, gloss: currency ? `In ${currency}` : 'In the currency of the production',
  }) // prettier-ignore
  return [
    { key: 'name', title: 'Thing', name: 'Thing', kind: 'computed', first: true, text: (row) => (row.set ? `All of ${row.thing.of}` : row.name) },
    { key: 'owned', title: 'Owned', name: 'Owned', kind: 'check', first: true, gloss: 'What is owned costs nothing' },
    { key: 'count', title: 'How many', name: 'How many', kind: 'number', size: 3, gloss: 'Two units of one day that need the same need two' },
    { ...price('per_day', 'A day', 'Price a day'), first: true },
    price('per_week', 'A week', 'Price a week'),
    price('to_buy', 'To buy', 'Price to buy'),
    { key: 'cost', title: `${hireDays} d`, name: `For ${hireDays} days`, kind: 'computed', right: true, text: (row) => row.known ? (row.known.owned ? 'owned' : money(row.known.cost, '')) : '' },
    { key: 'from_day', title: 'From day', name: 'From day', kind: 'text', size: 4, gloss: 'The shooting day from which it is there, as the shots name it' },
    { key: 'weight', title: 'Weighs', name: 'Weight', kind: 'computed', right: true, text: (row) => (row.set ? '' : row.known?.weight_kg == null ? '' : weightWords(row.known.weight_kg, unit)) },
    { key: 'weight_kg', title: `Weight ${weightUnit(unit)}`, name: 'Weight, where the equipment states none', kind: 'weight', unit, size: 5, fixed: (row) => row.set },
    { key: 'owner', title: 'Whose', name: 'Whose it is', kind: 'text', size: 12, gloss: 'Of whom it is owned or rented' },
    { key: 'serial', title: 'Serial numbers', name: 'Serial numbers', kind: 'text', size: 14 },
    { key: 'case', title: 'Case', name: 'Case', kind: 'text', size: 12 },
    { key: 'note', title: 'Note', name: 'Note', kind: 'text', size: 24 },
  ] // prettier-ignore
}
