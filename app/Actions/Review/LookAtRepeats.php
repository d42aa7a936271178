<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Models\Answer;
use App\Models\Dataset;
use App\Problems\Conflict;
use App\Queries\Review\Mask;
use App\Queries\Review\SideMask;
use App\Queries\Review\TechnicalColumns;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\HowFirstRowsRepeat;
use App\Questions\HowRowsRepeat;
use App\Questions\LookedParts;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Rows that share the values of some columns, both sides next to each other: looked at, and left as they are.
 *
 * @phpstan-import-type ChosenDocument from ChosenRow
 * @phpstan-import-type StepDocument from \NineTally\Core\Preparation\StepCatalogue
 *
 * @phpstan-type Pair array{source: string, target: string}
 * @phpstan-type KeyPair array{source: string, target: string, forgives: list<string>}
 * @phpstan-import-type Part from LookedParts
 *
 * @phpstan-type Asked array{columns: list<string>, forgives: list<string>, except: array{source: list<string>, target: list<string>},
 *     stake: string|null, parts: list<Part>, isPrepared: bool}
 */
final readonly class LookAtRepeats
{
    /** Rows of each side that are looked at first where all of them take a while. */
    private const FIRST_ROWS = 100_000;

    /** Of so many further columns is told what they would give. */
    private const OTHERS = 12;

    public function __construct(private Answers $answers, private TechnicalColumns $technical) {}

    /**
     * @param  Asked  $asked  columns of the source as the plan pairs them, none for its key; at stake a paired one that repeats add to
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     *
     * @throws \App\Problems\ValuesAreMasked when rows would be put together by values that are masked
     */
    public function __invoke(Dataset $dataset, array $asked, Sides $masks): array
    {
        [$question, $pairs, $chosen, $worth] = $this->question($dataset, $asked);
        $parted = array_intersect_key(array_column($pairs['all'], null, 'source'), array_flip(array_column($asked['parts'], 'column')));
        // Who is told a total of some rows learns values from it.
        foreach (Side::cases() as $side) {
            $masks->of($side)->mustAllow(
                array_column([...$chosen, ...array_values($parted), ...$worth === null ? [] : [$worth]], $side->value),
            );
        }
        $answer = $this->answers->to($question);
        $beginning = $this->beginning($dataset, $question, $answer);
        $found = $answer->content ?? $beginning;
        $draft = $dataset->draftNow();

        return [
            ...$answer->progress(),
            'firstRows' => $beginning === null ? null : self::FIRST_ROWS,
            'chosen' => self::names($chosen),
            'pairs' => self::names($pairs['all']),
            'key' => self::names($pairs['key']),
            'stake' => $worth,
            'technical' => Sides::each(fn(Side $side): array => $this->technical->of(
                $dataset,
                $side,
                array_column($chosen, $side->value),
                array_column($pairs['all'], $side->value),
            ))->named(),
            'draft' => $draft->number ?? 0,
            // What repeats among the first rows may repeat once more behind them.
            'mayChoose' => $question->isKey && $beginning === null,
            'found' => $found === null
                ? null
                : $this->masked($this->withChoices($found, $draft->document['keptRows'] ?? [], $masks), $masks),
        ];
    }

    /** @return array<string, mixed>|null what the first rows of both sides say, while all are still being looked at */
    private function beginning(Dataset $dataset, HowRowsRepeat $question, Answer $whole): ?array
    {
        $rows = array_map(
            static fn(Side $side): int => $dataset->latestDelivery($side)->delivered_count ?? 0,
            Side::cases(),
        );

        return $whole->isWaiting() && $question->hasNoSteps() && max($rows) > self::FIRST_ROWS
            ? $this->answers->to(new HowFirstRowsRepeat($question, self::FIRST_ROWS))->content
            : null;
    }

    /**
     * @param  Asked  $asked
     * @return array{HowRowsRepeat, array{key: list<KeyPair>, all: list<KeyPair>}, non-empty-list<KeyPair>, Pair|null} with the pairs of the
     *     plan, those that rows are put together by, and the one that is at stake
     */
    public function question(Dataset $dataset, array $asked): array
    {
        $pairs = $this->pairs($dataset);
        [$parts, $steps] = self::parts($asked['parts'], $pairs['all']);
        $sides =
            BothSides::of($dataset, $steps, $asked['isPrepared']) ??
            throw Conflict::because('no-delivery', 'Both sides must have delivered before their rows can be looked at.');
        $pairs = $asked['isPrepared'] ? $pairs : self::delivered($dataset, $pairs);
        $named = static fn(?string $source): array => array_values(array_filter(
            $pairs['all'],
            static fn(array $pair): bool => $pair['source'] === $source,
        ));
        $chosen = array_values(array_filter(
            $pairs['all'],
            static fn(array $pair): bool => in_array($pair['source'], $asked['columns'], true),
        ));
        $chosen = [...$chosen, ...$parts];
        // What becomes of rows is decided of those that the plan puts together.
        $isKey = $chosen === [] && $asked['forgives'] === [] && $asked['isPrepared'];
        $chosen = $chosen === [] ? $pairs['key'] : $chosen;
        if ($chosen === []) {
            throw Conflict::because('no-plan', 'There is no key yet. Choose one in Match, or say which columns rows are to share.');
        }
        $worth = self::names($named($asked['stake']))[0] ?? null;

        return [new HowRowsRepeat($sides, array_map(static fn(array $pair): array => [
            ...$pair,
            'forgives' => array_values(array_unique([...$pair['forgives'], ...$asked['forgives']])),
        ], $chosen), $isKey, $asked['except'], $worth, $this->others($pairs['all'], $chosen)), $pairs, $chosen, $worth];
    }

    /**
     * @param  list<Part>  $asked
     * @param  list<KeyPair>  $pairs
     * @return array{list<KeyPair>, Sides<list<StepDocument>>} the parts as pairs, and the steps that make them
     */
    private static function parts(array $asked, array $pairs): array
    {
        $byName = array_column($pairs, null, 'source');
        $parts = [];
        $steps = ['source' => [], 'target' => []];
        foreach ($asked as $nth => ['column' => $column, 'part' => $part]) {
            $pair = $byName[$column] ?? throw Conflict::because('no-pair', "No column is paired with {$column}. Choose another one.");
            $length = $asked[$nth]['length'] ?? 1;
            $parts[] = [
                'source' => LookedParts::name($pair['source'], $part, $length),
                'target' => LookedParts::name($pair['target'], $part, $length),
                'forgives' => [],
            ];
            foreach (Side::cases() as $side) {
                $steps[$side->value][] = LookedParts::step($pair[$side->value], $part, $length, $nth);
            }
        }

        return [$parts, new Sides($steps['source'], $steps['target'])];
    }

    /**
     * @param  array{key: list<KeyPair>, all: list<KeyPair>}  $pairs
     * @return array{key: list<KeyPair>, all: list<KeyPair>} those whose columns stand in both deliveries
     */
    private static function delivered(Dataset $dataset, array $pairs): array
    {
        $names = Sides::each(static fn(Side $side): array => $dataset->latestDelivery($side)?->namedColumns()->names ?? []);

        return array_map(static fn(array $some): array => array_values(array_filter(
            $some,
            static fn(array $pair): bool => in_array($pair['source'], $names->source, true) &&
                in_array($pair['target'], $names->target, true),
        )), $pairs);
    }

    /**
     * @param  list<KeyPair>  $all
     * @param  list<KeyPair>  $chosen
     * @return list<Pair> columns that could be shared too
     */
    private function others(array $all, array $chosen): array
    {
        $names = array_column($chosen, 'source');

        return array_slice(self::names(array_values(array_filter(
            $all,
            static fn(array $pair): bool => ! in_array($pair['source'], $names, true),
        ))), 0, self::OTHERS);
    }

    /**
     * @param  array<string, mixed>  $found
     * @param  list<ChosenDocument>  $keptRows
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed> without digests, which could be tried out where all of a row but one cell is known
     */
    private function withChoices(array $found, array $keptRows, Sides $masks): array
    {
        $reasons = [];
        foreach ($keptRows as $chosen) {
            // Whoever wrote the reason may have named a value.
            $chosen['reason'] = $masks->of(Side::from($chosen['side']))->hidesAnything() ? Mask::VALUE : $chosen['reason'];
            $reasons["{$chosen['side']} {$chosen['group']}"] = $chosen;
        }
        /** @var list<array<'source'|'target', array{digest: string|null, digests: list<string>, ...}>> $groups */
        $groups = $found['groups'];

        $withChoice = static function (array $group, string $side) use ($reasons): array {
            /** @var array<'source'|'target', array{digest: string|null, digests: list<string>, ...}> $group */
            $chosen = $reasons["{$side} {$group[$side]['digest']}"] ?? null;
            $row = $chosen === null ? false : array_search($chosen['row'], $group[$side]['digests'], true);

            return [
                ...array_diff_key($group[$side], ['digest' => true, 'digests' => true, 'key' => true]),
                'kept' => $chosen === null || $row === false ? null : ['row' => $row, 'reason' => $chosen['reason']],
            ];
        };

        return [...$found, 'groups' => array_map(static fn(array $group): array => [
            'source' => $withChoice($group, 'source'),
            'target' => $withChoice($group, 'target'),
        ], $groups)];
    }

    /** @return array{key: list<KeyPair>, all: list<KeyPair>} what each forgives as part of a key */
    private function pairs(Dataset $dataset): array
    {
        $document = $dataset->draftNow()->document ?? [];
        /** @var list<array{source: string, target: string, forgives?: list<string>}> $key */
        $key = $document['key'] ?? [];
        /** @var list<Pair> $others */
        $others = $document['columnPairs'] ?? [];
        $key = array_map(static fn(array $pair): array => [
            'source' => $pair['source'], 'target' => $pair['target'], 'forgives' => $pair['forgives'] ?? [],
        ], $key);
        $others = array_map(static fn(array $pair): array => [...$pair, 'forgives' => []], self::names($others));

        return ['key' => $key, 'all' => [...$key, ...$others]];
    }

    /**
     * @param  list<array{source: string, target: string, ...}>  $pairs  with whatever else the plan says of them
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
