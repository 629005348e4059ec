"""Print the schema of a walk record, as JSON Schema."""

import json
from typing import Any

from django.core.management.base import BaseCommand

from tropometer.server.walks.schemas import PlayedWalk


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        schema = {"$schema": "https://json-schema.org/draft/2020-12/schema", **PlayedWalk.model_json_schema()}
        self.stdout.write(json.dumps(schema | {"title": "Walk"}, indent=2))
