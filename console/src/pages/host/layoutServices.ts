import type { HostServiceView } from '../../api/schema.gen';

export interface ServiceNode {
  name: string;
  column: number;
  row: number;
  service: HostServiceView | undefined;
}

export interface ServiceEdge {
  from: string;
  to: string;
}

/**
 * Lays services out from left to right in the order in which they start: each one column beyond the last it waits for.
 * Those that neither wait nor are waited for are left to the table.
 */
export function layoutServices(services: HostServiceView[]): { nodes: ServiceNode[]; edges: ServiceEdge[] } {
  const known = new Map(services.map((s) => [s.name.toLowerCase(), s]));
  const nodes = new Map<string, ServiceNode>();
  const edges: ServiceEdge[] = [];
  const add = (name: string) => {
    const id = name.toLowerCase();
    if (!nodes.has(id)) nodes.set(id, { name: known.get(id)?.name ?? name, column: 0, row: 0, service: known.get(id) });
    return id;
  };
  for (const service of services)
    for (const wanted of service.waitsFor) edges.push({ from: add(wanted), to: add(service.name) });
  // A ring would push its members for ever: as many passes as there are services settle everything that can settle.
  for (let pass = 0, moved = true; moved && pass < nodes.size; pass++) {
    moved = false;
    for (const edge of edges) {
      const from = nodes.get(edge.from);
      const to = nodes.get(edge.to);
      if (from && to && to.column <= from.column) {
        to.column = from.column + 1;
        moved = true;
      }
    }
  }
  // What waits for nothing stands just before the first that waits for it, so that no line runs through others.
  for (const node of nodes.values()) {
    if (node.column > 0 || (node.service?.waitsFor.length ?? 0) > 0) continue;
    const next = edges.filter((e) => e.from === node.name.toLowerCase()).map((e) => nodes.get(e.to)?.column ?? 1);
    if (next.length > 0) node.column = Math.max(0, Math.min(...next) - 1);
  }
  const rows: number[] = [];
  for (const node of [...nodes.values()].sort((a, b) => a.name.localeCompare(b.name))) {
    node.row = rows[node.column] ?? 0;
    rows[node.column] = node.row + 1;
  }
  return { nodes: [...nodes.values()], edges };
}
