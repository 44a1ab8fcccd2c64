"""Plans of stored orders, as the screen asks for them."""

from umber_pebble.core.plan.compile import Plan
from umber_pebble.services.documents import Order
from umber_pebble.services.plan_parts import PlanParts
from umber_pebble.services.workshop import Workshop


def plan_order(workshop: Workshop, order: Order) -> Plan:
    return PlanParts(workshop).compiled(order, workshop.clock.now())
