"""What was a 'draft' is a typed text: drafting is what turns a shape into rounds."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("designs", "0002_longer_names")]

    operations = [
        migrations.RemoveConstraint("draft", "one_draft_a_part"),
        migrations.RenameModel("Draft", "TypedText"),
        migrations.AlterField(
            "typedtext",
            "design",
            models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="typed_texts", to="designs.design"
            ),
        ),
        migrations.AddConstraint(
            "typedtext", models.UniqueConstraint(fields=("design", "part_key"), name="one_typed_text_a_part")
        ),
    ]
