/** The schools of the trade, as they are chosen: their names in the document and in words. */
type Options = [string, string][]

export const LEVEL_SCHOOLS: Options = [
  ['below-face', 'below the face'],
  ['mid-grey', 'mid-grey'],
  ['follow-plate', 'follow the plate'],
  ['away-from-edge', 'away from the edge'],
  ['custom', 'own level'],
]
export const SHUTTER_SCHOOLS: Options = [
  ['180', '180°'],
  ['90', '90°'],
  ['faster', 'faster'],
  ['match-plate', 'match the plate'],
]
export const DISTANCE_SCHOOLS: Options = [
  ['1m', 'about 1 m'],
  ['1.2-2m', '1.2 to 2 m'],
  ['2m-plus', '2 m and more'],
  ['3m', '3 m'],
  ['shadow-gone', 'shadow gone'],
]
