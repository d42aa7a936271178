<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Review\ListMask;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\RowsListed;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Preparation\StepCatalogue;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Rows that stand on one side alone, or on both, with what references say of them: listed, and left as they are.
 *
 * @phpstan-import-type Line from RowsListed
 * @phpstan-import-type ListedColumn from RowsListed
 * @phpstan-import-type StepDocument from StepCatalogue
 *
 * @phpstan-type LookUp array{reference: string, on: list<array{column: string, reference: string}>, take: list<string>,
 *     forgives?: list<string>}
 * @phpstan-type Asked array{which: 'source'|'target'|'either'|'both'|'all', columns: list<string>, by: list<string>,
 *     lookUps: list<LookUp>, span: array{column: string, kind: string}|null}
 */
final readonly class ListRows
{
    /** Columns that are shown where none are named. */
    private const FIRST = 8;

    /** What a key of the plan is made of, and how both sides are read: nothing else of it decides who meets whom. */
    private const WHO_MEETS = ['formatVersion' => true, 'key' => true, 'bridges' => true, 'sides' => true];

    public function __construct(private Answers $answers, private Masks $masks) {}

    /**
     * @param  Asked  $asked
     * @return array<string, mixed>
     *
     * @throws \App\Problems\ValuesAreMasked when lines would be made by values that are masked
     */
    public function __invoke(Dataset $dataset, array $asked, User $person): array
    {
        $waiting = ['isWaiting' => false, 'done' => 0, 'total' => 0, 'columns' => [], 'chosen' => [], 'found' => null];
        try {
            [$question, $all] = $this->question($dataset, $asked);
        } catch (NineTallyException $problem) {
            return [...$waiting, 'problem' => $problem->getMessage()];
        }
        $mask = $this->mask($dataset, $question, $asked, $person);
        $answer = $this->answers->to($question);
        /** @var array{lines: list<Line>, ...}|null $found */
        $found = $answer->content;

        return [
            ...$answer->progress(),
            'columns' => $all,
            'chosen' => array_column($question->columns, 'name'),
            'found' => $found === null ? null : [
                ...$found,
                'lines' => array_map(
                    static fn(array $line): array => [...$line, 'cells' => $mask->cells($line['side'], $line['cells'])],
                    $found['lines'],
                ),
            ],
        ];
    }

    /**
     * @param  Asked  $asked
     *
     * @throws \App\Problems\ValuesAreMasked
     */
    public function mask(Dataset $dataset, RowsListed $question, array $asked, User $person): ListMask
    {
        $masks = Sides::each(fn(Side $side): SideMask => $this->masks->through(
            $dataset,
            $side,
            $question->sides->rules($side)->preparation,
            $person,
        ));
        foreach (Side::cases() as $side) {
            $by = array_filter($question->columns, static fn(array $column): bool => in_array($column['name'], $asked['by'], true));
            // Which value is the highest says something of all of them.
            $named = [...array_column($by, $side->value), $question->span[$side->value] ?? null];
            $masks->of($side)->mustAllow(array_values(array_filter($named, is_string(...))));
        }

        return new ListMask($question->columns, $masks);
    }

    /**
     * @param  Asked  $asked
     * @return array{RowsListed, list<ListedColumn>} and all columns that could be listed
     *
     * @throws NineTallyException where steps cannot be run
     */
    public function question(Dataset $dataset, array $asked): array
    {
        $draft = $dataset->draftNow();
        if ($draft === null || $draft->document['key'] === []) {
            throw Conflict::because('no-plan', 'There is no key yet. Choose one in Match.');
        }
        $pairs = $this->pairs($draft);
        $steps = Sides::each(fn(Side $side): array => $this->steps($asked['lookUps'], $pairs, $side));
        $sides = BothSides::of($dataset, $steps)
            ?? throw Conflict::because('no-delivery', 'Both sides must have delivered before their rows can be listed.');
        $all = $this->columns($dataset, $sides, $pairs);
        $looked = array_values(array_filter(
            $all,
            static fn(array $column): bool => $column['source'] !== null && $column['source'] === $column['target']
                && in_array($column['source'], self::made($steps->source), true),
        ));
        $named = array_values(array_filter($all, static fn(array $column): bool => in_array($column['name'], $asked['columns'], true)));
        $by = array_values(array_filter($all, static fn(array $column): bool => in_array($column['name'], $asked['by'], true)));
        $others = $named === [] && $by === [] ? array_slice($all, 0, self::FIRST) : $named;
        $chosen = array_values(array_unique([...$by, ...$others, ...$looked], SORT_REGULAR));
        $plan = CanonicalJson::of(array_intersect_key($draft->document, self::WHO_MEETS) + ['columnPairs' => []]);

        $spanned = array_values(
            array_filter($all, static fn(array $column): bool => $column['name'] === ($asked['span']['column'] ?? null)),
        );
        $span =
            $by === [] || $spanned === [] || $asked['span'] === null
                ? null
                : [
                    'source' => $spanned[0]['source'],
                    'target' => $spanned[0]['target'],
                    'kind' => $asked['span']['kind'],
                ];

        return [new RowsListed($sides, $plan, $asked['which'], $chosen, array_keys($by), $span), $all];
    }

    /** @return list<array{source: string, target: string}> of the key first */
    private function pairs(PlanDraft $draft): array
    {
        /** @var list<array{source: string, target: string}> $pairs */
        $pairs = [...$draft->document['key'], ...$draft->document['columnPairs'] ?? []];

        return array_map(static fn(array $pair): array => ['source' => $pair['source'], 'target' => $pair['target']], $pairs);
    }

    /**
     * @param  list<LookUp>  $lookUps
     * @param  list<array{source: string, target: string}>  $pairs
     * @return list<StepDocument>
     */
    private function steps(array $lookUps, array $pairs, Side $side): array
    {
        $names = array_column($pairs, $side->value, Side::Source->value);

        return array_map(static fn(array $lookUp, int $nth): array => [
            'id' => "listed-{$nth}",
            'kind' => 'look-up',
            'reference' => $lookUp['reference'],
            'on' => array_map(static fn(array $on): array => [...$on, 'column' => $names[$on['column']] ?? $on['column']], $lookUp['on']),
            'take' => array_map(static fn(string $column): array => [
                'reference' => $column, 'into' => "{$lookUp['reference']} {$column}",
            ], $lookUp['take']),
            'outcome' => "{$lookUp['reference']} record",
            ...($lookUp['forgives'] ?? []) === [] ? [] : ['forgives' => $lookUp['forgives']],
        ], $lookUps, array_keys($lookUps));
    }

    /**
     * @param  list<StepDocument>  $steps
     * @return list<string>
     */
    private static function made(array $steps): array
    {
        return array_merge(...array_map(
            static fn(array $step): array => [...array_column($step['take'] ?? [], 'into'), $step['outcome'] ?? ''],
            $steps,
        ));
    }

    /**
     * @param  list<array{source: string, target: string}>  $pairs
     * @return list<ListedColumn>
     *
     * @throws NineTallyException
     */
    private function columns(Dataset $dataset, BothSides $sides, array $pairs): array
    {
        $names = Sides::each(static fn(Side $side): array => $sides->rules($side)->preparation->columns(
            $dataset->latestDelivery($side)?->namedColumns()->names ?? [],
            $side->value,
        ));
        $columns = array_map(static fn(array $pair): array => ['name' => $pair['source'], ...$pair], $pairs);
        foreach (array_diff($names->source, array_column($pairs, 'source')) as $name) {
            $isMade = in_array($name, $names->target, true) && ! in_array($name, array_column($pairs, 'target'), true);
            $columns[] = ['name' => $name, 'source' => $name, 'target' => $isMade ? $name : null];
        }
        foreach (array_diff($names->target, array_column($columns, 'target')) as $name) {
            $isTaken = in_array($name, array_column($columns, 'name'), true);
            $columns[] = ['name' => $isTaken ? "{$name} (target)" : $name, 'source' => null, 'target' => $name];
        }

        return $columns;
    }
}
