<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/**
 * A plan as it is shown to somebody who may not see the values of some columns: what steps, crosswalks, bridges and demands say of their
 * values is replaced. A step that names such a column is masked in all that it says of values, for its parts cannot be told apart.
 */
final readonly class MaskedPlan
{
    /** What stands for a value. */
    public const MASK = '(masked)';

    /** Members of a step that hold values, or are made of them. */
    private const OF_VALUES = ['value', 'values', 'until', 'entries', 'find', 'with', 'pattern', 'reason'];

    /** @param array{source: list<string>, target: list<string>} $hidden names that columns have anywhere on the way */
    private function __construct(private array $hidden) {}

    /**
     * @param  array<string, mixed>  $document  as the schema of plans has it
     * @param  array{source: list<string>, target: list<string>}  $hidden  names that columns have anywhere on the way
     * @return array<string, mixed>
     */
    public static function of(array $document, array $hidden): array
    {
        return array_filter($hidden) === [] ? $document : (new self($hidden))->masked($document);
    }

    /**
     * @param  array<string, mixed>  $document
     * @return array<string, mixed>
     */
    private function masked(array $document): array
    {
        /** @var array{source?: array<string, mixed>, target?: array<string, mixed>} $sides */
        $sides = $document['sides'] ?? [];
        foreach ($sides as $side => $rules) {
            /** @var list<array<string, mixed>> $steps */
            $steps = $rules['preparation'] ?? [];
            $hidden = $this->hidden[$side];
            $sides[$side] = [
                ...$rules,
                ...$steps === []
                    ? []
                    : [
                        'preparation' => array_map(
                            fn(array $step): array => $this->speaksOf($step, $hidden) ? $this->step($step) : $step,
                            $steps,
                        ),
                    ],
            ];
        }
        /** @var list<array{source: string, target: string, crosswalk?: mixed}> $pairs */
        $pairs = $document['columnPairs'] ?? [];
        /** @var list<array{source: string, target: string}> $key */
        $key = $document['key'] ?? [];
        /** @var array<string, array<string, mixed>> $demands */
        $demands = $document['demands'] ?? [];
        $isKeyHidden = array_filter($key, $this->hides(...)) !== [];

        return [...$document, ...array_intersect_key([
            'sides' => $sides,
            'columnPairs' => array_map(
                fn(array $pair): array => isset($pair['crosswalk']) && $this->hides($pair)
                    ? [...$pair, 'crosswalk' => $this->values($pair['crosswalk'])]
                    : $pair,
                $pairs,
            ),
            'bridges' => $isKeyHidden ? $this->values($document['bridges'] ?? []) : $document['bridges'] ?? [],
            'demands' => array_combine(array_keys($demands), array_map(
                fn(array $demand, string $column): array => isset($demand['allowed']) && in_array($column, $this->hidden['target'], true)
                    ? [...$demand, 'allowed' => $this->values($demand['allowed'])]
                    : $demand,
                $demands,
                array_map(strval(...), array_keys($demands)),
            )),
        ], $document)];
    }

    /** @param array{source: string, target: string, ...} $pair */
    private function hides(array $pair): bool
    {
        return in_array($pair['source'], $this->hidden['source'], true) || in_array($pair['target'], $this->hidden['target'], true);
    }

    /**
     * @param  array<array-key, mixed>  $step
     * @param  list<string>  $names
     */
    private function speaksOf(array $step, array $names): bool
    {
        $isNamed = false;
        array_walk_recursive($step, static function (mixed $said, int|string $member) use ($names, &$isNamed): void {
            foreach ($names as $name) {
                $isNamed = $isNamed || $said === $name || ($member === 'formula' && is_string($said) && str_contains($said, $name));
            }
        });

        return $isNamed;
    }

    /**
     * @param  array<array-key, mixed>  $step
     * @return array<array-key, mixed>
     */
    private function step(array $step): array
    {
        foreach ($step as $member => $said) {
            $step[$member] = match (true) {
                in_array($member, self::OF_VALUES, true) => $this->values($said),
                // Texts in a formula may be values; its columns and functions are not.
                $member === 'formula' && is_string($said) => preg_replace(
                    '/"(?:[^"\\\\]|\\\\.)*"|\'(?:[^\'\\\\]|\\\\.)*\'/',
                    '"'.self::MASK.'"',
                    $said,
                ),
                is_array($said) => $this->step($said),
                default => $said,
            };
        }

        return $step;
    }

    /** Every text in it. */
    private function values(mixed $said): mixed
    {
        return match (true) {
            is_array($said) => array_map($this->values(...), $said),
            is_string($said) && $said !== '' => self::MASK,
            default => $said,
        };
    }
}
