<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\RowSets\GroupParts;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\Steps\AsMatched;
use NineTally\Core\Repeats\KeptRow;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatRules;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * The pairs of rows that a plan matches, those that a bridge joins among them: what other datasets take new numbers from. Memory is bounded
 * by a part of all rows, and by the rows that bridges name.
 *
 * @phpstan-type Rows list<list<string>>
 */
final readonly class MatchedRows
{
    private TallyParts $parts;

    /** @var Sides<RepeatRules> */
    private Sides $repeats;

    /**
     * @param  Sides<Reader>  $readers  prepared
     * @param  string  $folder  for rows that are put aside
     */
    public function __construct(private Plan $plan, private Sides $readers, private string $folder)
    {
        $this->parts = new TallyParts($plan, $readers, new TallySettings);
        $this->repeats = Sides::each($this->parts->repeatRules(...));
    }

    /** @return list<string> names of the columns of both sides, as {@see AsMatched} calls them */
    public function columns(): array
    {
        return AsMatched::columnsOf($this->readers->source->columns()->names, $this->readers->target->columns()->names);
    }

    /** @return \Generator<int, list<string>> the cells of both rows of a pair, in no order that matters */
    public function rows(): \Generator
    {
        $aside = Sides::each($this->aside(...));
        $bridges = $this->parts->bridges();
        $isBridged = array_fill_keys([...array_column($bridges, 'source'), ...array_column($bridges, 'target')], true);
        $alone = ['source' => [], 'target' => []];
        for ($part = 0; $part < GroupParts::PARTS; $part++) {
            [$source, $target] = $aside->map(fn(GroupParts $parts): array => $this->groups($parts, $part))->both();
            foreach ($source as $key => $rows) {
                foreach (isset($target[$key]) ? $this->pairs((string) $key, $rows, $target[$key]) : [] as [$one, $other]) {
                    yield [...$one, ...$other];
                }
            }
            $alone['source'] += array_intersect_key(array_diff_key($source, $target), $isBridged);
            $alone['target'] += array_intersect_key(array_diff_key($target, $source), $isBridged);
        }
        $aside->map(static fn(GroupParts $parts) => $parts->remove());
        foreach ($bridges as ['source' => $old, 'target' => $new]) {
            if (count($alone['source'][$old] ?? []) === 1 && count($alone['target'][$new] ?? []) === 1) {
                yield [...$alone['source'][$old][0], ...$alone['target'][$new][0]];
                unset($alone['source'][$old], $alone['target'][$new]);
            }
        }
    }

    private function aside(Side $side): GroupParts
    {
        $parts = new GroupParts($this->folder);
        $reader = $this->readers->of($side);
        $places = $reader->columns()->positionsOf($this->plan->keyNames($side));
        $form = $this->parts->keyForm($side);
        foreach ($reader->records() as $row) {
            if ($row instanceof Row) {
                $key = $form->canonical(array_map(static fn(int $place): string => $row->cells[$place], $places));
                // A row whose key is blank is unkeyed.
                trim($key, Batch::CELL_END) === '' || $parts->put($key, implode(Batch::CELL_END, $row->cells));
            }
        }

        return $parts;
    }

    /** @return array<array-key, Rows> by canonical key, in the order of the delivery */
    private function groups(GroupParts $parts, int $part): array
    {
        $groups = [];
        foreach ($parts->part($part) as [$key, $row]) {
            $groups[$key][] = explode(Batch::CELL_END, $row);
        }

        return $groups;
    }

    /**
     * @param  Rows  $source  of one key
     * @param  Rows  $target
     * @return list<array{list<string>, list<string>}> those that are compared
     */
    private function pairs(string $key, array $source, array $target): array
    {
        if (count($source) === 1 && count($target) === 1) {
            return [[$source[0], $target[0]]];
        }
        $hasChoice = $this->repeats->source->hasChoice($key) || $this->repeats->target->hasChoice($key);
        if ($this->repeats->source->policy === PolicyId::PairInOrder && ! $hasChoice) {
            $both = min(count($source), count($target));

            return array_map(static fn(int $nth): array => [$source[$nth], $target[$nth]], range(0, $both - 1));
        }
        $kept = $this->repeats->map(static fn(RepeatRules $rules): KeptRow => $rules->keptRow($key));
        foreach (['source' => $source, 'target' => $target] as $side => $rows) {
            foreach ($rows as $nth => $cells) {
                $kept->of(Side::from($side))->see($nth + 1, implode(Batch::CELL_END, $cells));
            }
        }
        [$one, $other] = [$kept->source->line(), $kept->target->line()];

        return $one === null || $other === null ? [] : [[$source[$one - 1], $target[$other - 1]]];
    }
}
