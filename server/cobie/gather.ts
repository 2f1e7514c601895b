import { and, asc, eq, inArray, isNotNull, isNull, like, sql } from 'drizzle-orm'
import type { CobieAsset, CobieBuilding, CobieKnown, CobieOwn } from '#core/cobie'
import { areaOf } from '#core/floorplans'
import { OWN_COLUMNS, ownSays } from '#core/own'
import type { OwnField } from '#core/own'
import type { Db } from '#server/kit'
import {
  assets,
  documentFiles,
  documents,
  equipment,
  ownFields,
  ownValues,
  parts,
  payers,
  people,
  places,
  preventivePlans,
  sites,
  spaceShapes,
  vendors,
} from '../tables'

type PlaceRow = Pick<typeof places.$inferSelect, 'id' | 'parentId' | 'code' | 'name' | 'kind' | 'payerId' | 'path'>

/** All that stands at a site, or in one building of it, as a workbook tells of it; read from the thread that makes or reads one. */
async function standing(db: Db, siteId: number, under: string | null) {
  const inside = under ? like(places.path, `${under}%`) : undefined
  const [placeRows, payerRows, vendorRows, assetRows] = await Promise.all([
    db
      .select({ id: places.id, parentId: places.parentId, code: places.code, name: places.name, kind: places.kind, payerId: places.payerId, path: places.path })
      .from(places)
      .where(and(eq(places.siteId, siteId), isNull(places.retiredAt), inside))
      .orderBy(asc(places.code)),
    db.select({ id: payers.id, code: payers.code, name: payers.name }).from(payers).where(isNull(payers.retiredAt)),
    db.select({ id: vendors.id, name: vendors.name, email: vendors.email, phone: vendors.phone }).from(vendors).where(isNull(vendors.retiredAt)),
    db
      .select({ asset: assets })
      .from(assets)
      .innerJoin(places, eq(places.id, assets.placeId))
      .where(and(eq(assets.siteId, siteId), isNull(assets.retiredAt), inside))
      .orderBy(asc(assets.tag)),
  ])
  const placeBy = new Map(placeRows.map((row) => [row.id, row]))
  const tagBy = new Map(assetRows.map(({ asset }) => [asset.id, asset.tag]))
  const payerBy = new Map(payerRows.map((row) => [row.id, row.code]))
  const vendorBy = new Map(vendorRows.map((row) => [row.id, row.name]))
  const all = assetRows.map(({ asset }): CobieAsset & { id: number } => ({
    id: asset.id,
    tag: asset.tag,
    name: asset.name,
    classCode: asset.classCode,
    condition: asset.condition,
    criticality: asset.criticality,
    owner: asset.owner,
    maker: asset.maker,
    model: asset.model,
    serial: asset.serial,
    installedOn: asset.installedOn,
    priceMinor: asset.priceMinor,
    lifeYears: asset.lifeYears,
    warrantyFrom: asset.warrantyFrom,
    warrantyUntil: asset.warrantyUntil,
    warrantyCovers: asset.warrantyCovers,
    warrantyTerms: asset.warrantyTerms,
    note: asset.note,
    space: placeBy.get(asset.placeId)?.code ?? '',
    parent: asset.parentId ? (tagBy.get(asset.parentId) ?? null) : null,
    vendor: asset.vendorId ? (vendorBy.get(asset.vendorId) ?? null) : null,
  }))
  return { placeRows, placeBy, payerRows, payerBy, vendorRows, assets: all }
}

/** The floor, or building, grounds or site, a space is on. */
function floorOf(place: PlaceRow, by: Map<number, PlaceRow>): PlaceRow | null {
  let above = place.parentId ? by.get(place.parentId) : undefined
  while (above?.kind === 'space') above = above.parentId ? by.get(above.parentId) : undefined
  return above ?? null
}

async function ownOf(db: Db): Promise<OwnField[]> {
  const rows = await db
    .select()
    .from(ownFields)
    .where(and(inArray(ownFields.kind, ['places', 'assets']), isNull(ownFields.retiredAt)))
    .orderBy(asc(ownFields.position))
  return rows.map(({ id, kind, label, shape, unit, choices }) => ({ id, kind, label, shape, unit, choices }))
}

/** What stands in own fields of these records, in words that are read back as they were written. */
async function ownSaid(db: Db, fields: OwnField[], codes: { places: Map<number, string>; assets: Map<number, string> }) {
  const rows = fields.length
    ? await db
        .select()
        .from(ownValues)
        .where(
          inArray(
            ownValues.fieldId,
            fields.map(({ id }) => id),
          ),
        )
    : []
  const persons = new Map<number, string>()
  const asked = rows.flatMap((row) => (fields.find(({ id }) => id === row.fieldId)!.shape === 'person' && row.number !== null ? [row.number] : []))
  if (asked.length)
    for (const row of await db.select({ id: people.id, name: people.name }).from(people).where(inArray(people.id, asked))) persons.set(row.id, row.name)
  return rows.flatMap((row) => {
    const field = fields.find(({ id }) => id === row.fieldId)!
    const kind = field.kind as 'places' | 'assets'
    const code = codes[kind].get(row.recordId)
    const value = row[OWN_COLUMNS[field.shape]]
    if (!code || value === null) return []
    const says = ownSays(
      { ...field, unit: null },
      value,
      (id) => persons.get(id) ?? '',
      (day) => day,
    )
    return [{ field, kind, code, says }]
  })
}

/** @throws Error when there is no such building */
export async function cobieBuilding(db: Db, buildingId: number): Promise<CobieBuilding> {
  const [found] = await db.select({ building: places, site: sites }).from(places).innerJoin(sites, eq(sites.id, places.siteId)).where(eq(places.id, buildingId))
  const { building, site } = found!
  const it = await standing(db, site.id, building.path)
  const spaces = it.placeRows.filter(({ kind }) => kind === 'space')
  const [shapes, fields, partRows, equipmentRows, jobs, files] = await Promise.all([
    db
      .select({ id: spaceShapes.spaceId, shape: spaceShapes.shape })
      .from(spaceShapes)
      .innerJoin(places, eq(places.id, spaceShapes.spaceId))
      .where(like(places.path, `${building.path}%`)),
    ownOf(db),
    db.select({ code: parts.code, name: parts.name, unit: parts.unit }).from(parts).where(isNull(parts.retiredAt)).orderBy(asc(parts.code)),
    db
      .select({ code: equipment.tag, name: equipment.name })
      .from(equipment)
      .where(and(eq(equipment.siteId, site.id), isNull(equipment.retiredAt)))
      .orderBy(asc(equipment.tag)),
    db
      .select({ name: preventivePlans.name, tag: assets.tag, rule: preventivePlans.rule, startsOn: preventivePlans.startsOn })
      .from(preventivePlans)
      .innerJoin(assets, eq(assets.id, preventivePlans.assetId))
      .innerJoin(places, eq(places.id, assets.placeId))
      .where(and(like(places.path, `${building.path}%`), isNull(assets.retiredAt)))
      .orderBy(asc(preventivePlans.id)),
    documentsIn(
      db,
      it.placeRows.map(({ id }) => id),
      it.assets.map(({ id }) => id),
    ),
  ])
  const areas = new Map(shapes.map(({ id, shape }) => [id, areaOf(shape)]))
  const codes = { places: new Map(it.placeRows.map((row) => [row.id, row.code])), assets: new Map(it.assets.map((row) => [row.id, row.tag])) }
  const used = new Set(it.assets.map(({ vendor }) => vendor))
  const own: CobieOwn[] = await ownSaid(db, fields, codes)
  return {
    site: { name: site.name, currency: site.currency },
    building: { code: building.code, name: building.name },
    floors: it.placeRows.filter(({ kind }) => kind === 'floor').map(({ code, name }) => ({ code, name })),
    spaces: spaces.map((space) => ({
      code: space.code,
      name: space.name,
      floor: floorOf(space, it.placeBy)?.code ?? building.code,
      payer: space.payerId ? (it.payerBy.get(space.payerId) ?? null) : null,
      area: areas.get(space.id) ?? null,
    })),
    payers: it.payerRows,
    assets: it.assets,
    vendors: it.vendorRows.filter(({ name }) => used.has(name)),
    parts: partRows,
    equipment: equipmentRows,
    jobs,
    documents: files.map(({ title, kind, file, on, recordId }) => ({ title, kind, file, on, code: codes[on].get(recordId)! })),
    own,
  }
}

async function documentsIn(db: Db, placeIds: number[], assetIds: number[]) {
  const rows = await db
    .select({
      title: documents.title,
      kind: documents.kind,
      on: documents.on,
      recordId: documents.recordId,
      file: sql<string>`(select name from ${documentFiles} where document_id = ${documents.id} order by number desc limit 1)`,
    })
    .from(documents)
    .where(and(inArray(documents.on, ['places', 'assets']), isNull(documents.retiredAt)))
    .orderBy(asc(documents.id))
  const [inPlaces, onAssets] = [new Set(placeIds), new Set(assetIds)]
  return rows.flatMap((row) => {
    const on = row.on as 'places' | 'assets'
    return (on === 'places' ? inPlaces : onAssets).has(row.recordId) ? [{ ...row, on }] : []
  })
}

/** What there is at a site, to hold a workbook against. */
export async function cobieKnown(db: Db, siteId: number, today: string, files: string[] | null): Promise<CobieKnown> {
  const [site] = await db.select({ currency: sites.currency }).from(sites).where(eq(sites.id, siteId))
  const it = await standing(db, siteId, null)
  const [fields, peopleRows, partRows, equipmentRows, jobs, kept] = await Promise.all([
    ownOf(db),
    db.select({ email: people.email }).from(people),
    db.select({ id: parts.id, code: parts.code, name: parts.name }).from(parts).where(isNull(parts.retiredAt)),
    db
      .select({ id: equipment.id, code: equipment.tag, name: equipment.name })
      .from(equipment)
      .where(and(eq(equipment.siteId, siteId), isNull(equipment.retiredAt))),
    db
      .select({
        id: preventivePlans.id,
        name: preventivePlans.name,
        tag: assets.tag,
        rule: preventivePlans.rule,
        startsOn: preventivePlans.startsOn,
      })
      .from(preventivePlans)
      .innerJoin(assets, eq(assets.id, preventivePlans.assetId))
      .where(eq(preventivePlans.siteId, siteId)),
    documentsIn(
      db,
      it.placeRows.map(({ id }) => id),
      it.assets.map(({ id }) => id),
    ),
  ])
  const codes = { places: new Map(it.placeRows.map((row) => [row.id, row.code])), assets: new Map(it.assets.map((row) => [row.id, row.tag])) }
  const own: CobieKnown['own'] = {}
  for (const { field, code, says } of await ownSaid(db, fields, codes)) (own[field.id] ??= {})[code] = says
  return {
    currency: site!.currency,
    places: it.placeRows.map((row) => ({
      id: row.id,
      code: row.code,
      name: row.name,
      kind: row.kind,
      on: floorOf(row, it.placeBy)?.code ?? null,
      payer: row.payerId ? (it.payerBy.get(row.payerId) ?? null) : null,
    })),
    assets: it.assets,
    vendors: it.vendorRows,
    people: peopleRows.flatMap(({ email }) => (email ? [email.toLowerCase()] : [])),
    payers: it.payerRows,
    parts: partRows,
    equipment: equipmentRows,
    ownFields: fields,
    own,
    retired: await retiredAt(db, siteId),
    jobs,
    today,
    files,
    documents: kept.map(({ title, on, recordId }) => `${title} ${codes[on].get(recordId)}`.toLowerCase()),
  }
}

/** Codes, tags and names that are retired, and so are not made a second time. */
async function retiredAt(db: Db, siteId: number): Promise<string[]> {
  const [placeRows, assetRows, partRows, equipmentRows, vendorRows] = await Promise.all([
    db
      .select({ code: places.code })
      .from(places)
      .where(and(eq(places.siteId, siteId), isNotNull(places.retiredAt))),
    db
      .select({ code: assets.tag })
      .from(assets)
      .where(and(eq(assets.siteId, siteId), isNotNull(assets.retiredAt))),
    db.select({ code: parts.code }).from(parts).where(isNotNull(parts.retiredAt)),
    db.select({ code: equipment.tag }).from(equipment).where(isNotNull(equipment.retiredAt)),
    db.select({ code: vendors.name, email: vendors.email }).from(vendors).where(isNotNull(vendors.retiredAt)),
  ])
  const named = (what: string, rows: { code: string }[]) => rows.map(({ code }) => `${what} ${code}`.toLowerCase())
  return [
    ...named('place', placeRows),
    ...named('asset', assetRows),
    ...named('part', partRows),
    ...named('equipment', equipmentRows),
    ...vendorRows.flatMap(({ code, email }) => [`vendor ${code}`.toLowerCase(), `vendor ${email}`.toLowerCase()]),
  ]
}
