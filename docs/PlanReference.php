<?php

declare(strict_types=1);

namespace NineTally\Docs;

use NineTally\Core\Preparation\Formula\Functions;
use NineTally\Core\Repeats\PolicyId;

/** The page on plans, from their schema. */
final class PlanReference
{
    private const STEP = '#/$defs/step';

    private const CONDITION = '#/$defs/condition';

    public function page(): string
    {
        /** @var array<string, mixed> $schema */
        $schema = json_decode(
            (string) file_get_contents(dirname(__DIR__).'/core/src/Plan/plan.schema.json'),
            true,
            64,
            JSON_THROW_ON_ERROR,
        );
        $page =
            Reference::HEAD.
            "# Plan\n\n{$this->text($schema['description'])} ".
            'The schema is `core/src/Plan/plan.schema.json` (JSON Schema 2020-12); `nine-tally plan check FILE` holds a document against '.
                'it.'.
            "\n\n| member | meaning |\n| --- | --- |\n";
        foreach ($this->members($schema, $schema, '') as $member => $meaning) {
            $page .= "| `{$member}` | {$meaning} |\n";
        }
        $page .= "\n## Policies for rows that share a key\n\n";
        foreach (PolicyId::cases() as $policy) {
            $page .=
                "- `{$policy->value}`".
                ($policy->needsColumn()
                    ? ', with the column whose value decides and its kind; ties keep the first, blank and unreadable values come last'
                    : '').
                "\n";
        }

        $step = $this->resolved($schema, ['$ref' => self::STEP]);
        $page .= "\n## Steps of a preparation\n\n{$this->text($step['description'] ?? '')}\n\n| kind | needs |\n| --- | --- |\n";
        /**
         * @var list<array{
         *     if: array{properties: array{kind: array{const: string}}},
         *     then: array{required?: list<string>, anyOf?: list<array{required: list<string>}>},
         * }> $rules
         */
        $rules = $step['allOf'];
        foreach ($rules as $rule) {
            $needs = array_map(
                static fn(array $names): string => implode(', ', array_map(static fn(string $name): string => "`{$name}`", $names)),
                array_column($rule['then']['anyOf'] ?? [$rule['then']], 'required'),
            );
            $page .= sprintf("| `%s` | %s |\n", $rule['if']['properties']['kind']['const'], implode('; or ', $needs));
        }
        $page .= "\n| member of a step | meaning |\n| --- | --- |\n";
        foreach ($this->members($schema, $step, '') as $member => $meaning) {
            $page .= "| `{$member}` | {$meaning} |\n";
        }
        $page .=
            "\nA condition within `all` and `any` is a condition again.\n\n## Formulas\n\nCells by the names of their columns, texts ".
                "between quotes, numbers; `+ - * /` on exact decimals, `~` joins texts; `== != < <= > >=`, `and`, `or`, `not`, `c ? a : ".
                "b`, `contains`, `starts with`, `ends with`; and\n\n";

        return $page.implode('', array_map(static fn(string $function): string => "- {$function}\n", array_values(Functions::LISTED)));
    }

    /**
     * @param  array<string, mixed>  $whole
     * @param  array<array-key, mixed>  $schema
     * @return array<string, string> path of each member => its meaning
     */
    private function members(array $whole, array $schema, string $path): array
    {
        $found = [];
        $properties = $schema['properties'] ?? [];
        foreach (is_array($properties) ? $properties : [] as $name => $property) {
            $property = $this->resolved($whole, is_array($property) ? $property : []);
            // Steps have a table of their own, and conditions hold conditions.
            $items = is_array($property['items'] ?? null) ? $property['items'] : [];
            $isTold = in_array($items['$ref'] ?? '', [self::STEP, self::CONDITION], true);
            $items = $isTold ? [] : $this->resolved($whole, $items);
            $place = ltrim("{$path}.{$name}", '.').($items === [] ? '' : '[]');
            $values = $property['enum'] ?? ($items['enum'] ?? null);
            $found[$place] = trim(
                $this->text($property['description'] ?? '').
                    (is_array($values)
                        ? ' One of '.
                            implode(
                                ', ',
                                array_map(
                                    static fn(mixed $value): string => '`'.
                                        (is_string($value) && $value !== '' ? $value : 'nothing').
                                        '`',
                                    $values,
                                ),
                            ).
                            '.'
                        : ''),
            );
            $found += $this->members($whole, $property, $place) + $this->members($whole, $items, $place);
        }

        return $found;
    }

    /**
     * @param  array<string, mixed>  $whole
     * @param  array<array-key, mixed>  $schema
     * @return array<array-key, mixed>
     */
    private function resolved(array $whole, array $schema): array
    {
        $reference = $schema['$ref'] ?? null;
        if (! is_string($reference)) {
            return $schema;
        }
        $at = $whole;
        foreach (explode('/', substr($reference, 2)) as $step) {
            $at = is_array($at) ? $at[$step] ?? [] : [];
        }

        return $schema + $this->resolved($whole, is_array($at) ? $at : []);
    }

    private function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }
}
