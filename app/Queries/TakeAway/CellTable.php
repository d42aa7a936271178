<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

use App\Queries\Review\AdditionalColumns;
use App\Queries\Review\FindingPages;
use App\Queries\Review\RulableCell;
use App\Queries\Review\Standing;
use App\Rulings\FindingSet\Filter;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Row\Side;

/** A line for each cell that differs, with both values, why they differ, and the columns that were added on the screen. */
final readonly class CellTable implements Table
{
    private const PAGE = 2_000;

    /** A binary floating-point number holds so many decimal digits for certain (IEEE 754, double). */
    private const EXACT_DIGITS = 15;

    /** @param list<string> $beside names of columns that were added on the screen */
    public function __construct(
        private TakenTally $taken,
        private Filter $filter,
        private FindingPages $pages,
        private AdditionalColumns $additional,
        private array $beside = [],
    ) {}

    public function fields(): array
    {
        return [
            new TableField('cell', 'integer', 'Place of the cell among those of the tally that differ, from 1.'),
            new TableField('row', 'integer', 'Place of its row among the findings of the tally, from 1.'),
            ...$this->taken->keyFields(),
            new TableField('column', 'string', 'Its column in the source.'),
            new TableField('target.column', 'string', 'Its column in the target.'),
            new TableField('class', 'string', 'changed, blanked or filled.'),
            new TableField('cause', 'string', 'The id of the cause, as the reference of causes lists it.'),
            new TableField('cause.sentence', 'string', 'The cause in words.'),
            new TableField('pattern', 'integer', 'The number of its pattern in this tally.'),
            new TableField('source', 'string', 'The value of the source as it was prepared.'),
            new TableField('source.state', 'string', 'blank, token (a word that means blank), or nothing: it has a value.'),
            new TableField('target', 'string', 'The value of the target as it was prepared.'),
            new TableField('target.state', 'string', 'As of the source.'),
            new TableField(
                'difference',
                'number',
                'Target less source, where they are numbers of at most 15 digits apart; a side without a value has nothing.',
            ),
            new TableField('difference.relative', 'number', 'The difference as a share of the size of the number in the source.'),
            new TableField('source.line', 'integer', 'Line on which its record begins.'),
            new TableField('target.line', 'integer', 'As of the source.'),
            ...array_map(
                static fn(string $name): TableField => new TableField(
                    "beside.{$name}",
                    'string',
                    'Added on the screen, from the same row.',
                ),
                $this->beside,
            ),
            ...$this->taken->rulingFields(),
            ...$this->taken->originFields(),
        ];
    }

    public function primaryKey(): array
    {
        return ['tally', 'cell'];
    }

    public function lines(): \Generator
    {
        $pairs = $this->taken->layout->plan->columnPairs;
        $origin = $this->taken->origin();
        $sequence = $read = 0;
        do {
            $cells = array_values(
                array_filter(
                    $this->pages->after($this->taken->tally, $this->filter, $this->taken->mask, $sequence, self::PAGE),
                    static fn(mixed $finding): bool => $finding instanceof RulableCell,
                ),
            );
            $this->taken->willNeed(array_map(static fn(RulableCell $cell): Standing => $cell->standing, $cells));
            $beside = $this->additional->of($this->taken->tally, $this->taken->mask, $cells, $this->beside);
            foreach ($cells as $cell) {
                $found = $cell->finding;
                $pair = $pairs[$found->pairPosition];
                $sequence = $cell->sequence;
                yield ++$read => [
                    $cell->sequence,
                    $cell->rowSequence,
                    ...$this->taken->key($cell->key),
                    $pair->source,
                    $pair->target,
                    $found->class->value,
                    $found->cause,
                    CauseId::sentenceFor($found->cause, $found->facts),
                    $found->place->number,
                    $found->source,
                    $this->taken->state(Side::Source, $pair->source, $found->source),
                    $found->target,
                    $this->taken->state(Side::Target, $pair->target, $found->target),
                    $this->difference($found->difference?->value->written()),
                    $found->difference->relative ?? '',
                    $cell->sourceLine ?? '',
                    $cell->targetLine ?? '',
                    ...array_map(
                        static fn(?string $value): string => (string) $value,
                        $beside[$cell->rowSequence] ?? array_fill(0, count($this->beside), ''),
                    ),
                    ...$this->taken->ruling($cell->standing),
                    ...$origin,
                ];
            }
        } while (count($cells) === self::PAGE);
    }

    /** Exact, or nothing: what has more digits than a program's number can hold is in both values, where it is text. */
    private function difference(?string $text): string|int|float
    {
        if ($text === null || strlen(ltrim(str_replace(['-', '.'], '', $text), '0')) > self::EXACT_DIGITS) {
            return '';
        }

        return str_contains($text, '.') ? (float) $text : (int) $text;
    }
}
