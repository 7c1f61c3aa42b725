import type { HostServiceView } from '../../api/schema.gen';

export interface ServiceNode {
  name: string;
  service: HostServiceView | undefined;
}

export interface ServiceEdge {
  from: string;
  to: string;
}

/** Which services wait for which; those that neither wait nor are waited for are left to the table. */
export function joinServices(services: HostServiceView[]): { nodes: ServiceNode[]; edges: ServiceEdge[] } {
  const known = new Map(services.map((s) => [s.name.toLowerCase(), s]));
  const nodes = new Map<string, ServiceNode>();
  const edges: ServiceEdge[] = [];
  const add = (name: string) => {
    const id = name.toLowerCase();
    if (!nodes.has(id)) nodes.set(id, { name: known.get(id)?.name ?? name, service: known.get(id) });
    return id;
  };
  for (const service of services)
    for (const wanted of service.waitsFor) edges.push({ from: add(wanted), to: add(service.name) });
  return { nodes: [...nodes.values()], edges };
}
