<?php

declare(strict_types=1);

namespace App\Actions\Prove;

use App\Models\Tally;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\WhatViolatesConstraints;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * What the target demands, in one list: of the values of the source, which were to be loaded, and of those of the target, which arrived.
 *
 * @phpstan-type Unmet array{part: string, count: int, examples: list<array{part: int, line: int, value: string}>}
 * @phpstan-type Checked array{rows: int, columns: list<array{source: string, target: string, unmet: list<Unmet>}>}
 */
final readonly class CheckDemands
{
    public function __construct(private Answers $answers) {}

    /**
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     */
    public function __invoke(Tally $tally, Sides $masks): array
    {
        $demands = $tally->planVersion->plan()->columnRules->demands;
        if ($demands === []) {
            return ['isWaiting' => false, 'problem' => null, 'items' => []];
        }
        $answers = Sides::each(fn(Side $side) => $this->answers->to(WhatViolatesConstraints::ofTally($tally, $side)));
        $items = [];
        foreach (Side::cases() as $side) {
            /** @var Checked|null $checked */
            $checked = $answers->of($side)->content;
            foreach ($checked['columns'] ?? [] as $column) {
                foreach ($this->parts($demands[$column['target']] ?? []) as $part) {
                    $item = $items["{$column['target']} {$part}"] ?? [
                        'column' => $column['target'],
                        'demand' => $part,
                        'asks' => $this->asks($demands[$column['target']][$part] ?? null),
                        'source' => null,
                        'target' => null,
                    ];
                    $item[$side->value] = $this->unmet($column, $part, $masks->of($side));
                    $items["{$column['target']} {$part}"] = $item;
                }
            }
        }

        return [
            'isWaiting' => $answers->source->isWaiting() || $answers->target->isWaiting(),
            'problem' => $answers->source->problem ?? $answers->target->problem,
            'items' => array_values($items),
        ];
    }

    /**
     * @param  array<string, mixed>  $demand
     * @return list<string>
     */
    private function parts(array $demand): array
    {
        $parts = array_keys(array_filter($demand, static fn(mixed $asked): bool => $asked !== false && $asked !== []));

        // A number of so many digits or decimals must be a number first.
        return array_intersect(['digits', 'decimals'], $parts) === [] ? $parts : [...$parts, 'number'];
    }

    private function asks(mixed $demanded): ?string
    {
        return match (true) {
            is_int($demanded) => (string) $demanded,
            is_array($demanded) => implode(', ', array_filter($demanded, is_scalar(...))),
            default => null,
        };
    }

    /**
     * @param  array{source: string, target: string, unmet: list<Unmet>}  $column
     * @return array{column: string, count: int, examples: list<array{part: int, line: int, value: string}>}
     */
    private function unmet(array $column, string $part, SideMask $mask): array
    {
        $found = array_values(array_filter($column['unmet'], static fn(array $unmet): bool => $unmet['part'] === $part))[0] ?? null;

        return [
            'column' => $column['source'],
            'count' => $found['count'] ?? 0,
            'examples' => array_map(
                static fn(array $example): array => $mask->hidesPrepared($column['source'])
                    ? [...$example, 'value' => $mask->text($example['value'])]
                    : $example,
                array_slice($found['examples'] ?? [], 0, 5),
            ),
        ];
    }
}
