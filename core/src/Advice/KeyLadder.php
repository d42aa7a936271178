<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Matching\RowSets\KeyMeeting;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;

/**
 * What keeps rows apart whose keys mean the same: for each column of the key the causes of form, from weak to strong, each with the rows
 * that it would bring in and those that would then share a key.
 *
 * Rows are drawn by the hash of what their key is likely to be, whatever it is written in, so that both sides of a pair are drawn or
 * neither is. Rungs that bring nothing there are not held against all rows.
 *
 * @phpstan-import-type Declared from DeclaredReading
 *
 * @phpstan-type KeyColumnRules array{forgives: list<string>, source: Declared, target: Declared}
 */
final class KeyLadder
{
    /** Rows of each side that are drawn. */
    public const ROWS = 20_000;

    /** Rungs that are held against all rows. */
    private const MOST_RUNGS = 8;

    /** Keys of the target that each key of the source is held against to find the likest. */
    private const COMPARED = 3_000;

    /** Causes of form that need no kind to be read in, from weak to strong: what is least likely to join what differs comes first. */
    public const OF_ANY_KIND = ['spacing', 'invisible', 'case', 'unicode', 'punctuation', 'accents', 'leading-zeros', 'number-form'];

    private const CAUSES = [...self::OF_ANY_KIND, 'date-form', 'yes-no-form'];

    /** @var array{source: list<list<string>>, target: list<list<string>>} key cells */
    private array $drawn = ['source' => [], 'target' => []];

    /** @var array{source: list<list<string>>, target: list<list<string>>}|null those of them that meet nothing as the plan stands */
    private ?array $lonely = null;

    private readonly BareCells $bare;

    /**
     * @param  non-empty-list<KeyColumnRules>  $columns  of the key, as the plan has them
     * @param  array<int, list<array{source: Declared, target: Declared, kind: Kind}>>  $readings  by column: kinds and forms that both
     *     sides could be read in, and are not yet
     * @param  int  $oneIn  rows that are drawn: all, or one key in so many
     */
    public function __construct(
        private readonly array $columns,
        private readonly array $readings,
        private readonly FormCombination $forms,
        private readonly string $folder,
        private readonly int $oneIn = 1,
    ) {
        $this->bare = new BareCells;
    }

    /**
     * @param  'source'|'target'  $side
     * @param  list<string>  $key
     */
    public function see(string $side, array $key): void
    {
        if ($this->oneIn === 1 || crc32($this->likelyKey($key)) % $this->oneIn === 0) {
            $this->drawn[$side][] = $key;
        }
    }

    public function isWhole(): bool
    {
        return $this->oneIn === 1;
    }

    /** @return list<KeyRung> those that bring rows in, alone or with others, from weak to strong */
    public function rungs(): array
    {
        $all = $this->possible();
        $alone = array_filter($all, fn(KeyRung $rung): bool => $this->joined([$rung]) > 0);
        // Where two things are needed at once, neither brings a row in alone.
        $together = $this->fewest($all);
        $rungs = array_filter($all, static fn(KeyRung $rung): bool => in_array($rung, $alone, true) || in_array($rung, $together, true));

        return array_slice(array_values($rungs), 0, self::MOST_RUNGS);
    }

    /**
     * @param  list<KeyRung>  $rungs
     * @return list<KeyRung> the fewest that bring in all rows that all of them would, the weaker before the stronger
     */
    public function fewest(array $rungs): array
    {
        $most = $this->joined($rungs);
        foreach (array_reverse($rungs) as $rung) {
            $without = array_values(array_filter($rungs, static fn(KeyRung $one): bool => $one !== $rung));
            if ($this->joined($without) === $most) {
                $rungs = $without;
            }
        }

        return $most === 0 ? [] : $rungs;
    }

    /**
     * @param  list<KeyRung>  $rungs
     * @return int rows of the source that meet nothing, and would meet one that meets nothing either
     */
    private function joined(array $rungs): int
    {
        $lonely = $this->lonely ??= $this->withoutCounterpart([]);
        [$form, $otherForm] = [$this->form('source', $rungs), $this->form('target', $rungs)];
        $there = array_fill_keys(array_map($otherForm->canonical(...), $lonely['target']), true);

        return count(array_filter($lonely['source'], static fn(array $key): bool => isset($there[$form->canonical($key)])));
    }

    /**
     * Two cells of its column that a rung joins, alone or with the others.
     *
     * @param  list<KeyRung>  $others
     * @return array{source: string, target: string}|null
     */
    public function example(KeyRung $rung, array $others): ?array
    {
        $lonely = $this->lonely ??= $this->withoutCounterpart([]);
        foreach ([[$rung], $others] as $rungs) {
            [$form, $otherForm] = [$this->form('source', $rungs), $this->form('target', $rungs)];
            $there = [];
            foreach ($lonely['target'] as $key) {
                $there[$otherForm->canonical($key)] ??= $key[$rung->column];
            }
            foreach ($lonely['source'] as $key) {
                $cell = $there[$form->canonical($key)] ?? null;
                if ($cell !== null && $cell !== $key[$rung->column]) {
                    return ['source' => $key[$rung->column], 'target' => $cell];
                }
            }
        }

        return null;
    }

    /** @param list<KeyRung> $rungs */
    public function meeting(array $rungs): KeyMeeting
    {
        $count = new KeyLadderCount($this->form('source', $rungs), $this->form('target', $rungs), $this->folder);
        foreach (['source', 'target'] as $side) {
            foreach ($this->drawn[$side] as $key) {
                $count->see($side, $key);
            }
        }

        return $count->meeting();
    }

    /**
     * Counts all rows, whichever were drawn.
     *
     * @param  list<KeyRung>  $rungs
     */
    public function count(array $rungs): KeyLadderCount
    {
        return new KeyLadderCount($this->form('source', $rungs), $this->form('target', $rungs), $this->folder);
    }

    /**
     * Rows that meet nothing, each beside the row of the other side that meets nothing either and is likest to it.
     *
     * @param  list<KeyRung>  $rungs
     * @return list<array{source: list<string>, target: list<string>|null}>
     */
    public function beside(array $rungs, int $atMost): array
    {
        $lonely = $this->withoutCounterpart($rungs);
        $likest = new LikestKey(array_slice($lonely['target'], 0, self::COMPARED), $this->bare);

        return array_map(
            static fn(array $key): array => ['source' => $key, 'target' => $likest->to($key)],
            array_slice($lonely['source'], 0, $atMost),
        );
    }

    /**
     * @param  list<KeyRung>  $rungs
     * @return array{source: list<list<string>>, target: list<list<string>>}
     */
    private function withoutCounterpart(array $rungs): array
    {
        $canonical = [];
        foreach (['source', 'target'] as $side) {
            $form = $this->form($side, $rungs);
            $canonical[$side] = array_map($form->canonical(...), $this->drawn[$side]);
        }
        $there = ['source' => array_fill_keys($canonical['target'], true), 'target' => array_fill_keys($canonical['source'], true)];
        $lonely = ['source' => [], 'target' => []];
        foreach ($canonical as $side => $keys) {
            foreach ($keys as $row => $key) {
                isset($there[$side][$key]) || ($lonely[$side][] = $this->drawn[$side][$row]);
            }
        }

        return $lonely;
    }

    /** @return list<KeyRung> */
    private function possible(): array
    {
        $rungs = [];
        foreach ($this->columns as $column => $rules) {
            foreach (array_diff(self::CAUSES, $rules['forgives']) as $cause) {
                foreach ($this->declarations($column, $cause) as [$source, $target]) {
                    $rungs[] = new KeyRung($column, $cause, $source, $target);
                }
            }
            $entries = $this->crosswalk($column);
            if ($entries !== []) {
                $rungs[] = new KeyRung($column, 'crosswalk', entries: $entries);
            }
        }

        return $rungs;
    }

    /** @return array<array-key, string> where the values of a column tell by themselves which means which */
    private function crosswalk(int $column): array
    {
        $lonely = $this->lonely ??= $this->withoutCounterpart([]);
        $values = array_map(static fn(array $keys): array => array_unique(array_column($keys, $column)), $lonely);
        // What differs in form alone is joined by its form; names of one month are two words for it.
        $formless = fn(string $value): string => str_starts_with($this->bare->one($value), 'month ')
            ? mb_strtolower(trim($value))
            : $this->bare->one($value);
        $bare = array_map(static fn(array $ofSide): array => array_fill_keys(array_map($formless, $ofSide), true), $values);
        $left = static fn(string $side, string $other): array => array_values(
            array_filter($values[$side], static fn(string $value): bool => ! isset($bare[$other][$formless($value)])),
        );
        $values = ['source' => $left('source', 'target'), 'target' => $left('target', 'source')];

        return CrosswalkAdvice::entries($values['source'], $values['target']);
    }

    /** @return list<array{Declared, Declared}> what both sides would declare so that the cause can join their values */
    private function declarations(int $column, string $cause): array
    {
        $kinds = match ($cause) {
            'number-form' => [Kind::Number],
            'date-form' => [Kind::Date, Kind::DateTime],
            'yes-no-form' => [Kind::YesNo],
            default => null,
        };
        $declarations = $kinds === null || $kinds === [Kind::Number] ? [[[], []]] : [];
        foreach ($this->readings[$column] ?? [] as $reading) {
            if ($kinds !== null && in_array($reading['kind'], $kinds, true)) {
                $declarations[] = [$reading['source'], $reading['target']];
            }
        }

        return $declarations;
    }

    /**
     * @param  'source'|'target'  $side
     * @param  list<KeyRung>  $rungs
     */
    private function form(string $side, array $rungs): LadderForm
    {
        $readings = $forgives = $entries = [];
        foreach ($this->columns as $column => $rules) {
            $ofColumn = array_filter($rungs, static fn(KeyRung $rung): bool => $rung->column === $column);
            $declared = $rules[$side];
            foreach ($ofColumn as $rung) {
                $declared = [...$declared, ...$rung->{$side}];
                $entries += $side === 'source' && $rung->entries !== [] ? [$column => $rung->entries] : [];
            }
            $readings[] = DeclaredReading::of($declared, Kind::Text);
            $forgives[] = [...$rules['forgives'], ...array_map(static fn(KeyRung $rung): string => $rung->cause, array_values($ofColumn))];
        }

        return new LadderForm(new KeyForm($readings, $forgives, $this->forms), $entries);
    }

    /** @param list<string> $key */
    private function likelyKey(array $key): string
    {
        return implode("\0", array_map($this->bare->one(...), $key));
    }
}
