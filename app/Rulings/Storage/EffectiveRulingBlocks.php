<?php

declare(strict_types=1);

namespace App\Rulings\Storage;

use App\Adapters\Database\CopyText;
use App\Adapters\Database\DatabaseRow;
use App\Models\Decision;
use Illuminate\Database\Connection;
use NineTally\Core\Ruling\EffectiveRulingBlock;

/** The blocks of standings of a group, as the database keeps them: those without any act are not kept. */
final readonly class EffectiveRulingBlocks
{
    public function __construct(private Connection $database) {}

    /**
     * @param  list<int>|null  $numbers  null for all of the group, of which there may be very many
     * @return \Generator<int, EffectiveRulingBlock> by number
     */
    public function read(int $tallyId, string $group, ?array $numbers): \Generator
    {
        foreach (
            $this->database->cursor(
                <<<'SQL'
                SELECT block, array_to_string(acts, ',') AS acts, array_to_string(decisions, ',') AS decisions, encode(marks,
                    'hex') AS marks
                FROM standings WHERE tally_id = :tally AND "group" = :group
                    AND (:blocks::bigint[] IS NULL OR block = ANY(:blocks::bigint[])) ORDER BY block
                SQL
                ,
                $this->bindings($tallyId, $group, $numbers),
            )
            as $fields
        ) {
            $row = DatabaseRow::of($fields);
            yield $row->int('block') => EffectiveRulingBlock::kept(
                array_map(intval(...), explode(',', $row->text('acts'))),
                explode(',', $row->text('decisions')),
                $row->bytes('marks'),
            );
        }
    }

    /**
     * @param  list<int>|null  $numbers  of the blocks that give way; null for all of the group
     * @param  array<int, EffectiveRulingBlock>  $blocks  by number
     */
    public function replace(int $tallyId, string $group, ?array $numbers, array $blocks): void
    {
        $this->database->delete(
            'DELETE FROM standings WHERE tally_id = :tally AND "group" = :group AND (:blocks::bigint[] IS NULL OR block = '.
                'ANY(:blocks::bigint[]))',
            $this->bindings($tallyId, $group, $numbers),
        );
        $codes = array_map(static fn(Decision $decision): int => $decision->code(), array_column(Decision::cases(), null, 'value'));
        $lines = [];
        foreach ($blocks as $number => $block) {
            if (! $block->isUndecided()) {
                $lines[] = CopyText::line([
                    $tallyId,
                    $group,
                    $number,
                    CopyText::list($block->acts),
                    CopyText::list($block->decisions),
                    CopyText::bytes($block->marks),
                    CopyText::bytes($block->decided($codes)),
                ]);
            }
        }
        CopyText::into($this->database, 'standings', 'tally_id,"group",block,acts,decisions,marks,decided', $lines);
    }

    /**
     * @param  list<int>|null  $numbers
     * @return array<string, int|string|null>
     */
    private function bindings(int $tallyId, string $group, ?array $numbers): array
    {
        return ['tally' => $tallyId, 'group' => $group, 'blocks' => $numbers === null ? null : CopyText::list($numbers)];
    }
}
