/** Who decides, on every report. */
export const deference =
  'A planning aid. Local code, the authority having jurisdiction, the listing and instructions of the equipment, and licensed practice decide.'
