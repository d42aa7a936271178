<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use App\Rulings\GroupKind;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use NineTally\Core\Ruling\BlockMembers;
use NineTally\Core\Ruling\EffectiveRulingBlock;

/** What a ruling on a filter covers now, by group and block: told from the groups where that can be, else found by looking. */
final readonly class MembersOfFilter
{
    public function __construct(private Connection $database, private FilteredFindings $findings, private FilterBitmaps $meant) {}

    /** @return \Generator<array{string, int, BlockMembers}> group, number of the block, and its findings that are covered: at least one */
    public function of(Tally $tally, Filter $filter): \Generator
    {
        $meant = $this->meant->of($tally, $filter);

        return $meant === null ? $this->found($tally, $filter) : $this->told($tally, $meant);
    }

    /** @return \Generator<array{string, int, BlockMembers}> */
    private function told(Tally $tally, FilterBitmap $meant): \Generator
    {
        foreach ($this->meant->flags($tally, $meant) as $group => $flags) {
            foreach (str_split($flags, EffectiveRulingBlock::FINDINGS) as $block => $ofBlock) {
                if (str_contains($ofBlock, "\1")) {
                    yield [$group, $block, BlockMembers::flagged($ofBlock)];
                }
            }
        }
    }

    /** @return \Generator<array{string, int, BlockMembers}> */
    private function found(Tally $tally, Filter $filter): \Generator
    {
        foreach ($this->findings->ruledOn($tally, $filter) as $name => $branches) {
            $kind = GroupKind::from($name);
            $placed = array_map(
                static fn(Builder $branch): Builder => $branch->selectRaw(
                    "f.{$kind->column()} AS value, {$kind->blockIn('f')} AS block, {$kind->placeIn('f')} AS place",
                ),
                $branches,
            );
            $all = array_shift($placed);
            array_map($all->unionAll(...), $placed);
            foreach (
                $this->database
                    ->query()
                    ->fromSub($all, 'placed')
                    ->groupBy('value', 'block')
                    ->selectRaw("value::text, block, array_to_string(array_agg(place), ',') AS places")
                    ->cursor()
                as $fields
            ) {
                $row = DatabaseRow::of($fields);
                yield [
                    $kind->prefix().$row->text('value'),
                    $row->int('block'),
                    BlockMembers::at(pack('C*', ...array_map(intval(...), explode(',', $row->text('places'))))),
                ];
            }
        }
    }
}
