/**
 * Sheets and columns of a COBie workbook, in order: version 2.4, as the United States National BIM Standard prints
 * them (NBIMS-US V3, chapter 4.2; from memory). Those we neither write nor read (Assembly, Connection, Impact,
 * Coordinate, Issue, PickLists) are left out.
 */
export const COBIE_SHEETS = {
  Contact:
    'Email CreatedBy CreatedOn Category Company Phone ExternalSystem ExternalObject ExternalIdentifier Department OrganizationCode GivenName FamilyName Street PostalBox Town StateRegion PostalCode Country',
  Facility:
    'Name CreatedBy CreatedOn Category ProjectName SiteName LinearUnits AreaUnits VolumeUnits CurrencyUnit AreaMeasurement ExternalSystem ExternalProjectObject ExternalProjectIdentifier ExternalSiteObject ExternalSiteIdentifier ExternalFacilityObject ExternalFacilityIdentifier Description ProjectDescription SiteDescription Phase',
  Floor: 'Name CreatedBy CreatedOn Category ExtSystem ExtObject ExtIdentifier Description Elevation Height',
  Space: 'Name CreatedBy CreatedOn Category FloorName Description ExtSystem ExtObject ExtIdentifier RoomTag UsableHeight GrossArea NetArea',
  Zone: 'Name CreatedBy CreatedOn Category SpaceNames ExtSystem ExtObject ExtIdentifier Description',
  Type: 'Name CreatedBy CreatedOn Category Description AssetType Manufacturer ModelNumber WarrantyGuarantorParts WarrantyDurationParts WarrantyGuarantorLabor WarrantyDurationLabor WarrantyDurationUnit ExtSystem ExtObject ExtIdentifier ReplacementCost ExpectedLife DurationUnit WarrantyDescription NominalLength NominalWidth NominalHeight ModelReference Shape Size Color Finish Grade Material Constituents Features AccessibilityPerformance CodePerformance SustainabilityPerformance',
  Component:
    'Name CreatedBy CreatedOn TypeName Space Description ExtSystem ExtObject ExtIdentifier SerialNumber InstallationDate WarrantyStartDate TagNumber BarCode AssetIdentifier',
  System: 'Name CreatedBy CreatedOn Category ComponentNames ExtSystem ExtObject ExtIdentifier Description',
  Spare: 'Name CreatedBy CreatedOn Category TypeName Suppliers ExtSystem ExtObject ExtIdentifier Description SetNumber PartNumber',
  Resource: 'Name CreatedBy CreatedOn Category ExtSystem ExtObject ExtIdentifier Description',
  Job: 'Name CreatedBy CreatedOn Category Status TypeName Description Duration DurationUnit Start TaskStartUnit Frequency FrequencyUnit ExtSystem ExtObject ExtIdentifier TaskNumber Priors ResourceNames',
  Document: 'Name CreatedBy CreatedOn Category ApprovalBy Stage SheetName RowName Directory File ExtSystem ExtObject ExtIdentifier Description Reference',
  Attribute: 'Name CreatedBy CreatedOn Category SheetName RowName Value Unit ExtSystem ExtObject ExtIdentifier Description AllowedValues',
} as const
export type CobieSheet = keyof typeof COBIE_SHEETS
export const COBIE_SHEET_NAMES = Object.keys(COBIE_SHEETS) as CobieSheet[]
export const cobieColumns = (sheet: CobieSheet): string[] => COBIE_SHEETS[sheet].split(' ')

/** What stands in a cell that says nothing. */
export const NOTHING = 'n/a'
/** Rows of a workbook by sheet, the heading first; every cell as text. */
export type CobieTables = Partial<Record<CobieSheet, string[][]>>

/** Field and value of what has no column of its own: written and read as attributes of components. */
export const ATTRIBUTE_FIELDS = {
  condition: 'Condition',
  criticality: 'Criticality',
  owner: 'Belongs to',
  parent: 'Part of',
  note: 'Note',
  warrantyUntil: 'Warranty until',
} as const
export type AttributeField = keyof typeof ATTRIBUTE_FIELDS

/** By which tag a row of the sheet Component is entered. */
export const tagOf = (line: { cell(column: string): string }): string =>
  line.cell('TagNumber') || line.cell('AssetIdentifier') || line.cell('BarCode') || line.cell('Name')
