<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Http\Controllers\Controller;
use App\Models\Tally;
use App\Queries\Review\DeliveredRecord;
use App\Queries\Review\FindingPages;
use App\Queries\Review\Masks;
use App\Queries\Review\RulableRow;
use App\Questions\Answers;
use App\Questions\KeysBeside;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use NineTally\Core\Row\Side;

/** To believe a finding: its row where it was delivered, and, of a row that only one side has, what stands next to its key on the other. */
final class DeliveredController extends Controller
{
    public function __construct(private readonly Masks $masks, private readonly FindingPages $pages) {}

    public function show(Request $request, Tally $tally, int $sequence, DeliveredRecord $delivered): JsonResponse
    {
        $row = $this->row($request, $tally, $sequence)->finding;

        return response()->json([
            'source' => $this->masked($delivered->of($tally, Side::Source, $row->placeOn(Side::Source)), $tally, Side::Source, $request),
            'target' => $this->masked($delivered->of($tally, Side::Target, $row->placeOn(Side::Target)), $tally, Side::Target, $request),
        ]);
    }

    public function beside(Request $request, Tally $tally, int $sequence, Answers $answers): JsonResponse
    {
        $row = $this->row($request, $tally, $sequence)->finding;
        if ($row->side === null || $row->deliveredKey === null) {
            return response()->json(['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'columns' => [], 'rows' => []]);
        }
        $answer = $answers->to(KeysBeside::of($tally, $row->side->other(), $row->deliveredKey->cells));

        return response()->json([
            ...$answer->progress(),
            'columns' => $answer->content['columns'] ?? [],
            'rows' => $this->rowsBeside($answer->content, $tally, $row->side->other(), $request),
        ]);
    }

    private function row(Request $request, Tally $tally, int $sequence): RulableRow
    {
        return $this->pages->row($tally, $this->masks->forPerson($this->person($request), $tally), $sequence);
    }

    /**
     * @param  array{file: string, part: int, line: int, columns: list<string>, cells: list<string>|null, lines: list<array{line: int,
     *     text: string|null}>, problem: string|null}|null  $record
     * @return array<string, mixed>|null
     */
    private function masked(?array $record, Tally $tally, Side $side, Request $request): ?array
    {
        $mask = $this->masks->ofSide($tally->dataset, $side, $this->person($request));

        return $record === null || ! $mask->hidesAnything()
            ? $record
            : [
                ...$record,
                'cells' => $record['cells'] === null ? null : $mask->cells($record['columns'], $record['cells']),
                // Lines as they were read hold every column.
                'lines' => array_map(
                    static fn(array $line): array => [...$line, 'text' => $line['text'] === null ? null : $mask->text($line['text'])],
                    $record['lines'],
                ),
            ];
    }

    /**
     * @param  array<string, mixed>|null  $beside
     * @return list<mixed>
     */
    private function rowsBeside(?array $beside, Tally $tally, Side $side, Request $request): array
    {
        /** @var list<string> $columns */
        $columns = $beside['columns'] ?? [];
        /** @var list<array{key: string, part: int, line: int, cells: list<string>}> $rows */
        $rows = $beside['rows'] ?? [];
        $person = $this->person($request);
        $ofKey = $this->masks->forPerson($person, $tally);

        return $this->masks
            ->ofSide($tally->dataset, $side, $person)
            ->ofPrepared()
            ->rows($columns, array_map(static fn(array $row): array => [...$row, 'key' => (string) $ofKey->key($row['key'])], $rows));
    }
}
