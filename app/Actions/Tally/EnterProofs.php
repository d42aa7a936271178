<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Database\CopyText;
use App\Models\RecordCheck;
use App\Models\RecordLine;
use App\Models\TallyTotal;
use Illuminate\Database\Connection;
use NineTally\Core\Records\RecordReport;
use NineTally\Core\Row\Side;
use NineTally\Core\Tally\Summary;

/** Enters what a tally proves: its control totals with their groups, and the values that must have a record. */
final readonly class EnterProofs
{
    private const LINES_A_TIME = 5_000;

    public function __construct(private Connection $database) {}

    public function __invoke(int $tallyId, Summary $summary): void
    {
        foreach ($summary->reports->totals as $place => $report) {
            TallyTotal::query()->create([
                'tally_id' => $tallyId,
                'number' => $place + 1,
                'differs' => $report->differs(),
                'figures' => array_diff_key($report->toArray(), ['groups' => true]),
                'groups' => count($report->groups),
            ]);
            $this->enter('total_groups', 'place,figures', [$tallyId, $place + 1], $report->groups);
        }
        foreach ($summary->reports->records as $place => $report) {
            RecordCheck::query()->create(['tally_id' => $tallyId, 'number' => $place + 1, 'figures' => $report->figures()]);
            foreach ($this->lines($report) as $list => $lines) {
                $this->enter('record_lines', 'list,place,figures', [$tallyId, $place + 1, $list], $lines);
            }
        }
    }

    /** @return array<string, list<array<string, mixed>>> by their list */
    private function lines(RecordReport $report): array
    {
        $lines = array_fill_keys(RecordReport::KINDS, []);
        foreach ($report->missing() as $missing) {
            $lines[$missing['kind']][] = $missing;
        }
        foreach (Side::cases() as $side) {
            $lines[RecordLine::UNREFERENCED.$side->value] = $report->unreferenced($side);
        }

        return $lines;
    }

    /**
     * @param  string  $columns  behind those of the tally and the number
     * @param  list<int|string>  $of  what all lines begin with
     * @param  list<array<string, mixed>>  $figures  a line each, in their order
     */
    private function enter(string $table, string $columns, array $of, array $figures): void
    {
        foreach (array_chunk($figures, self::LINES_A_TIME, true) as $some) {
            CopyText::into($this->database, $table, "tally_id,number,{$columns}", array_map(
                static fn(int $nth, array $one): string => CopyText::line([
                    ...$of,
                    $nth + 1,
                    json_encode($one, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES),
                ]),
                array_keys($some),
                $some,
            ));
        }
    }
}
