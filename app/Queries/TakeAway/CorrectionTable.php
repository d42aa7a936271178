<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

use App\Adapters\Database\DatabaseRow;
use App\Models\CorrectionSet;
use App\Models\Ruling;
use App\Models\Tally;
use App\Queries\Review\CorrectionChecks;
use App\Queries\Review\TallyColumns;
use NineTally\Core\Row\Side;

/** Corrections to be taken away: a line for each, under the names of the target, with what the newest tally says of it. */
final class CorrectionTable implements Table
{
    private const PAGE = 1_000;

    private readonly TallyColumns $layout;

    /** @var array<int, string> ticket by act */
    private array $tickets = [];

    public function __construct(
        private readonly CorrectionSet $set,
        private readonly Tally $newest,
        private readonly CorrectionChecks $checks,
    ) {
        $this->layout = TallyColumns::ofTally($set->tally);
        foreach (Ruling::query()->whereIntegerInRaw('id', $set->rulings)->get() as $act) {
            $this->tickets[$act->id] = (string) $act->ticket;
        }
    }

    /**
     * @return list<array{number: int, action: string, key: array<string, string>, column: string|null, stands: string|null,
     *     must: string|null, row: array<string, string>|null, uncertain: string, state: string, ticket: string, identity: string}>
     */
    public function objects(int $after, int $limit): array
    {
        return array_map(
            fn(DatabaseRow $row): array => [
                'number' => $row->int('number'),
                'action' => $row->text('action'),
                'key' => $this->members($row->text('key')),
                'column' => $row->textOrNull('column'),
                'stands' => $row->textOrNull('stands'),
                'must' => $row->textOrNull('must'),
                'row' => $row->textOrNull('row') === null ? null : $this->members($row->text('row')),
                'uncertain' => $row->text('uncertain'),
                'state' => $row->text('state'),
                'ticket' => $this->tickets[$row->intOrNull('ruling_id') ?? 0] ?? '',
                'identity' => $row->text('identity'),
            ],
            $this->checks->lines($this->set, $this->newest, $after, $limit),
        );
    }

    public function fields(): array
    {
        return [
            new TableField('correction', 'integer', 'Its number in the set, from 1.'),
            new TableField(
                'action',
                'string',
                'add (a row), take-out (a row), set (a cell) or set-key (a cell of the key that a bridge joins).',
            ),
            ...array_map(
                static fn(string $name): TableField => new TableField("key.{$name}", 'string', 'Cell of the key, as the target writes it.'),
                $this->layout->plan->keyNames(Side::Target),
            ),
            new TableField('column', 'string', 'Of a cell: its column in the target.'),
            new TableField('stands', 'string', 'Of a cell: what stands in the target.'),
            new TableField('must', 'string', 'Of a cell: what must stand there, in the form that the target declares.'),
            ...array_map(
                static fn(string $name): TableField => new TableField("row.{$name}", 'string', 'Of a row to add: its cell.'),
                $this->otherColumns(),
            ),
            new TableField('uncertain', 'string', 'What cannot be said for certain, and why.'),
            new TableField('state', 'string', 'By the newest tally: waits, done, not-done, otherwise or not-to-be-told.'),
            new TableField('ticket', 'string', 'The ticket of the ruling.'),
            new TableField('identity', 'string', 'Of the finding, or the bridge, the same in every tally under one key.'),
        ];
    }

    public function primaryKey(): array
    {
        return ['correction'];
    }

    public function lines(): \Generator
    {
        $keys = $this->layout->plan->keyNames(Side::Target);
        $columns = $this->otherColumns();
        foreach ($this->all() as $line) {
            yield $line['number'] => [
                $line['number'],
                $line['action'],
                ...array_map(static fn(string $name): string => $line['key'][$name] ?? '', $keys),
                (string) $line['column'],
                (string) $line['stands'],
                (string) $line['must'],
                ...array_map(static fn(string $name): string => $line['row'][$name] ?? '', $columns),
                $line['uncertain'],
                $line['state'],
                $line['ticket'],
                $line['identity'],
            ];
        }
    }

    /** @return list<string> of the target, without its key */
    private function otherColumns(): array
    {
        return array_values(array_diff($this->layout->targetColumns, $this->layout->plan->keyNames(Side::Target)));
    }

    /** @return \Generator<int, array{number: int, action: string, key: array<string, string>, column: string|null, stands: string|null,
     *     must: string|null, row: array<string, string>|null, uncertain: string, state: string, ticket: string, identity: string}> */
    private function all(): \Generator
    {
        $after = 0;
        do {
            $lines = $this->objects($after, self::PAGE);
            foreach ($lines as $line) {
                $after = $line['number'];
                yield $after => $line;
            }
        } while (count($lines) === self::PAGE);
    }

    /** @return array<string, string> */
    private function members(string $json): array
    {
        /** @var array<string, string> $members */
        $members = json_decode($json, true, 4, JSON_THROW_ON_ERROR);

        return $members;
    }
}
