import type { Kind } from '../parts/kinds.ts';
import type { FileKind } from './file-kind.ts';

/**
 * What people write over a column, beside the name that the forms use: the headings of the tables on the crate's own pages, what
 * shops and spreadsheets write, and the usual words in German, French and Spanish. By field; units are read apart.
 */
type Usual = Readonly<Record<string, readonly string[]>>;

const NAME = ['product', 'item', 'article', 'title', 'description', 'bezeichnung', 'artikel', 'nom', 'nombre'];
const READ = ['read', 'read rated', 'read speed', 'reads', 'seq read', 'max read', 'lesen', 'lecture', 'lectura'];
const WRITE = [
  'write',
  'write rated',
  'write speed',
  'writes',
  'seq write',
  'max write',
  'schreiben',
  'ecriture',
  'escritura'
];
const CAPACITY = ['size', 'space', 'storage', 'kapazitat', 'grosse', 'capacite', 'capacidad', 'tamano'];
const LENGTH = ['long', 'lange', 'longueur', 'longitud', 'largo'];
const CARRIES = ['speed', 'link', 'link modes', 'standard', 'interface', 'geschwindigkeit', 'vitesse', 'velocidad'];

const OF_A_KIND: Record<Kind, Usual> = {
  drive: {
    name: [...NAME, 'drive', 'ssd', 'disk', 'laufwerk', 'disque', 'unidad', 'disco'],
    media: ['type', 'technology', 'drive type', 'typ', 'type de disque', 'tipo'],
    formFactor: ['form', 'format', 'bauform', 'facteur de forme', 'formato'],
    capacityTB: CAPACITY,
    'pcie.generation': ['pcie', 'pci express', 'gen', 'generation'],
    'pcie.lanes': ['lanes', 'pcie lanes', 'width'],
    sataGbps: ['sata speed', 'sata rate'],
    readMBps: READ,
    writeMBps: WRITE,
    random4kReadMBps: ['random read', '4k read', 'rnd read'],
    random4kWriteMBps: ['random write', '4k write', 'rnd write'],
    'flash.cell': ['cells', 'cell', 'cell type', 'nand', 'nand type', 'flash', 'zellen', 'cellules', 'celdas'],
    'flash.dram': ['dram', 'dram cache', 'has dram'],
    'flash.cacheGB': ['cache', 'write cache', 'cache size', 'schreibcache', 'slc cache'],
    'flash.postCacheWriteMBps': ['sustained write', 'write after cache', 'post cache write', 'dauerschreiben'],
    'disk.rpm': ['rpm', 'rotation', 'drehzahl', 'vitesse de rotation'],
    'disk.recording': ['recording', 'cmr smr'],
    m2LengthMm: ['module length', 'm2 size', 'lange', 'longueur', 'longitud'],
    m2Key: ['key', 'keying'],
    thicknessMm: ['thick', 'height', 'dicke', 'hohe', 'epaisseur', 'grosor'],
    sides: ['sides', 'single or double sided', 'sided'],
    heatsinkMm: ['heatsink', 'kuhlkorper', 'dissipateur', 'disipador'],
    'power.idleW': ['idle', 'idle power', 'leerlauf'],
    'power.activeW': ['power', 'active power', 'leistung', 'puissance', 'potencia'],
    'power.peakW': ['max power', 'peak power'],
    'throttle.startC': ['throttle', 'throttle temperature', 'max temperature'],
    enduranceTBW: ['tbw', 'endurance rating', 'lebensdauer', 'durabilidad'],
    warrantyYears: ['garantie', 'garantia', 'warranty period'],
    fillFraction: ['filled', 'full']
  },
  enclosure: {
    name: [...NAME, 'enclosure', 'case', 'gehause', 'boitier', 'caja', 'carcasa'],
    formFactor: ['form', 'format', 'bauform', 'formato'],
    protocols: ['protocol', 'drive type', 'protokoll', 'protocole', 'protocolo'],
    modes: CARRIES,
    plug: ['port', 'connector', 'anschluss', 'stecker', 'connecteur', 'conector'],
    bridge: ['chip', 'controller', 'chipset', 'bridge chip'],
    uas: ['uasp'],
    trim: ['trim support'],
    m2LengthsMm: ['lengths', 'module lengths', 'langen', 'longueurs'],
    m2Keys: ['keys', 'key'],
    maxThicknessMm: ['max thickness', 'drive thickness'],
    maxCapacityTB: ['largest drive', 'max capacity', 'up to'],
    clearanceTopMm: ['clearance', 'gap'],
    'cooling.kind': ['fan', 'cooling', 'kuhlung', 'refroidissement', 'refrigeracion'],
    'cooling.areaCm2': ['surface', 'area'],
    'cooling.material': ['material', 'materiau'],
    externalSupply: ['power supply', 'netzteil', 'alimentation', 'fuente'],
    weightG: ['gewicht', 'poids', 'peso']
  },
  cable: {
    name: [...NAME, 'cable', 'kabel'],
    'ends.0': ['plug a', 'from', 'plug 1', 'end 1', 'stecker a'],
    'ends.1': ['plug b', 'to', 'plug 2', 'end 2', 'stecker b'],
    modes: CARRIES,
    lengthM: LENGTH,
    active: ['active', 'aktiv', 'actif', 'activo'],
    certified: ['certified', 'zertifiziert', 'certifie', 'certificado'],
    yLead: ['y cable', 'y lead']
  },
  pad: {
    name: [...NAME, 'pad', 'warmeleitpad'],
    thicknessMm: ['thick', 'height', 'dicke', 'starke', 'epaisseur', 'grosor', 'espesor'],
    widthMm: ['breite', 'largeur', 'ancho'],
    lengthMm: LENGTH,
    conductivityWmK: [
      'conductivity',
      'conductivity printed',
      'thermal conductivity',
      'warmeleitfahigkeit',
      'conductivite',
      'conductividad'
    ],
    shore00: ['hardness', 'shore', 'shore 00', 'harte', 'durete', 'dureza'],
    quantity: ['count', 'pcs', 'number', 'stuck', 'anzahl', 'pieces', 'cantidad']
  },
  host: {
    name: [...NAME, 'computer', 'machine', 'laptop', 'rechner', 'ordinateur', 'ordenador'],
    'os.family': ['os', 'system', 'betriebssystem', 'systeme', 'sistema'],
    'os.version': ['os version', 'system version'],
    ports: ['port', 'connections', 'anschlusse', 'connecteurs', 'puertos', 'ports as printed'],
    'internalDisk.readMBps': [...READ, 'own disk reads', 'disk read'],
    'internalDisk.writeMBps': [...WRITE, 'own disk writes', 'disk write'],
    'internalDisk.freeGB': ['free', 'free space', 'frei']
  },
  alternative: {
    name: [...NAME, 'drive', 'ready-made drive'],
    sort: ['type', 'typ', 'tipo', 'what'],
    capacityTB: CAPACITY,
    baseCapacityTB: ['base capacity'],
    readMBps: READ,
    writeMBps: WRITE
  }
};

const ITEMS: Usual = {
  tag: ['label', 'id', 'number', 'etikett', 'etiquette', 'etiqueta'],
  serial: ['serial', 'sn', 's n', 'seriennummer', 'numero de serie'],
  capacityBytes: ['bytes', 'exact bytes'],
  firmware: ['fw', 'firmware version'],
  state: ['status', 'zustand', 'etat', 'estado', 'at hand'],
  location: ['place', 'location', 'ort', 'platz', 'lieu', 'lugar'],
  custodian: ['lent to', 'with', 'holder', 'ausgeliehen an', 'prete a', 'prestado a'],
  dueBack: ['due', 'back by', 'zuruck am', 'retour', 'devolucion'],
  resale: ['resale', 'sell for'],
  notes: ['note', 'comment', 'notizen', 'remarques', 'notas'],
  model: [...NAME, 'name', 'model', 'drive'],
  kind: ['type', 'kind of part'],
  build: ['in build', 'belongs to']
};

const PRICES: Usual = {
  vendor: ['shop', 'store', 'seller', 'laden', 'handler', 'haendler', 'magasin', 'tienda'],
  date: ['day', 'on', 'seen', 'seen on', 'datum', 'fecha'],
  currency: ['cur', 'wahrung', 'devise', 'moneda'],
  list: ['price', 'cost', 'amount', 'preis', 'prix', 'precio'],
  discountPercent: ['discount', 'rabatt', 'remise', 'descuento'],
  coupon: ['coupon', 'voucher', 'gutschein', 'bon', 'cupon'],
  couponPercent: ['coupon percent'],
  shipping: ['postage', 'delivery', 'versand', 'livraison', 'envio'],
  taxPercent: ['vat', 'tax', 'mwst', 'tva', 'iva'],
  expires: ['until', 'valid to', 'expiry', 'gultig bis', 'jusqu au', 'hasta'],
  note: ['notes', 'comment', 'notiz', 'remarque', 'nota'],
  part: [...NAME, 'name', 'model'],
  kind: ['type', 'kind of part']
};

/**
 * Gives what people write over the columns of a file, by field.
 * @example usualHeadings('models', 'drive').readMBps.includes('read') // true
 */
export function usualHeadings(what: FileKind, of: Kind = 'drive'): Usual {
  if (what === 'units') return ITEMS;
  return what === 'quotes' ? PRICES : OF_A_KIND[of];
}
