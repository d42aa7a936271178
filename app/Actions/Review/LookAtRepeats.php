<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Models\Dataset;
use App\Problems\Conflict;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\HowRowsRepeat;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Rows that share the values of some columns, both sides next to each other: looked at, and left as they are.
 *
 * @phpstan-type Pair array{source: string, target: string}
 */
final readonly class LookAtRepeats
{
    public function __construct(private Answers $answers) {}

    /**
     * @param  list<string>  $columns  of the source, as the plan pairs them; none for its key
     * @param  list<string>  $forgives
     * @param  array{source: list<string>, target: list<string>}  $except
     * @param  string|null  $stake  a paired column of the source whose total the repeats add to
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     *
     * @throws \App\Problems\ValuesAreMasked when rows would be put together by values that are masked
     */
    public function __invoke(Dataset $dataset, array $columns, array $forgives, array $except, ?string $stake, Sides $masks): array
    {
        $sides =
            BothSides::of($dataset) ??
            throw Conflict::because('no-delivery', 'Both sides must have delivered before their rows can be looked at.');
        $pairs = $this->pairs($dataset);
        $chosen = array_values(array_filter($pairs['all'], static fn(array $pair): bool => in_array($pair['source'], $columns, true)));
        $chosen = $chosen === [] ? $pairs['key'] : $chosen;
        if ($chosen === []) {
            throw Conflict::because('no-plan', 'There is no key yet. Choose one in Match, or say which columns rows are to share.');
        }
        // Who is told a total of some rows learns values from it.
        $worth = array_values(array_filter($pairs['all'], static fn(array $pair): bool => $pair['source'] === $stake))[0] ?? null;
        foreach (Side::cases() as $side) {
            $masks->of($side)->mustAllow(array_column([...$chosen, ...$worth === null ? [] : [$worth]], $side->value));
        }
        $answer = $this->answers->to(new HowRowsRepeat($sides, $chosen, $forgives, $except, $worth));

        return [
            ...$answer->progress(),
            'chosen' => $chosen,
            'pairs' => $pairs['all'],
            'key' => $pairs['key'],
            'stake' => $worth,
            'found' => $answer->content === null ? null : $this->masked($answer->content, $masks),
        ];
    }

    /** @return array{key: list<Pair>, all: list<Pair>} */
    private function pairs(Dataset $dataset): array
    {
        $document = $dataset->draft()->first()->document ?? [];
        /** @var list<Pair> $key */
        $key = $document['key'] ?? [];
        /** @var list<Pair> $others */
        $others = $document['columnPairs'] ?? [];
        $key = self::names($key);

        return ['key' => $key, 'all' => [...$key, ...self::names($others)]];
    }

    /**
     * @param  list<Pair>  $pairs  with whatever else the plan says of them
     * @return list<Pair>
     */
    private static function names(array $pairs): array
    {
        return array_map(static fn(array $pair): array => ['source' => $pair['source'], 'target' => $pair['target']], $pairs);
    }

    /**
     * @param  array<string, mixed>  $found
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     */
    private function masked(array $found, Sides $masks): array
    {
        /** @var array{source: list<string>, target: list<string>} $columns */
        $columns = $found['columns'];
        /** @var list<array<string, array{rows: list<array{part: int, line: int, cells: list<string>}>, ...}>> $groups */
        $groups = $found['groups'];

        return [...$found, 'groups' => array_map(static function (array $group) use ($columns, $masks): array {
            foreach (Side::cases() as $side) {
                $group[$side->value]['rows'] = $masks->of($side)->ofPrepared()->rows($columns[$side->value], $group[$side->value]['rows']);
            }

            return $group;
        }, $groups)];
    }
}
