<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\Tally;
use Illuminate\Database\Connection;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Plan\Bridges;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * The pairs of keys that bridges of the draft join: how both sides spell them, what the newest tally made of them, and what has to be
 * corrected where somebody said which side is right.
 *
 * @phpstan-type Told array{number: int, source: list<string>, target: list<string>, right: 'source'|'target'|null,
 *     state: 'agrees'|'differs'|'idle'|'new', cells: int}
 */
final readonly class BridgedKeys
{
    private const PAGE = 100;

    public function __construct(private Connection $database) {}

    /**
     * @param  int  $from  number of the first one
     * @param  Sides<SideMask>  $masks
     * @return array{key: list<array{source: string, target: string}>, total: int, draft: int, items: list<Told>}
     */
    public function page(Dataset $dataset, int $from, Sides $masks): array
    {
        $draft = $dataset->draftNow();
        $bridges = Bridges::fromDocument($draft->document ?? [])->confirmed;
        $key = self::key($draft);
        $tally = $dataset->latestTally();
        $plan = $tally?->planVersion->plan();
        $joined = $tally === null ? [] : JoinedBridges::of($tally);
        $form = $plan?->keyForm(Side::Source, (new CauseCatalogue)->forms);
        $differing = $tally === null || $form === null ? [] : $this->differing($tally, $form);
        $items = [];
        foreach (array_slice($bridges, $from - 1, self::PAGE) as $place => $bridge) {
            $cells = $form === null ? 0 : $differing[$form->canonical($bridge->source)] ?? 0;
            $items[] = [
                'number' => $from + $place,
                'source' => self::shown($bridge->source, array_column($key, 'source'), $masks->source),
                'target' => self::shown($bridge->target, array_column($key, 'target'), $masks->target),
                'right' => $bridge->right?->value,
                'state' => match (true) {
                    ! isset($joined[$bridge->identity()]) => 'new',
                    ! $joined[$bridge->identity()] => 'idle',
                    default => $cells > 0 ? 'differs' : 'agrees',
                },
                'cells' => $cells,
            ];
        }

        return ['key' => $key, 'total' => count($bridges), 'draft' => $draft->number ?? 0, 'items' => $items];
    }

    /**
     * A line for each cell of a key that has to be set, on the side that is not right; a bridge of which nobody said who is has one line
     * without.
     *
     * @param  Sides<SideMask>  $masks
     * @return \Generator<int, string> CSV
     */
    public function corrections(Dataset $dataset, Sides $masks): \Generator
    {
        $draft = $dataset->draftNow();
        $key = self::key($draft);
        $names = Sides::each(static fn(Side $side): array => array_column($key, $side->value));
        yield CsvLine::of([
            ...array_map(static fn(string $name): string => "source {$name}", $names->source),
            ...array_map(static fn(string $name): string => "target {$name}", $names->target),
            'right', 'correct in', 'column', 'stands', 'must',
        ]);
        foreach (Bridges::fromDocument($draft->document ?? [])->confirmed as $bridge) {
            $shown = [
                'source' => self::shown($bridge->source, $names->source, $masks->source),
                'target' => self::shown($bridge->target, $names->target, $masks->target),
            ];
            $keys = [...$shown['source'], ...$shown['target']];
            if ($bridge->right === null) {
                yield CsvLine::of([...$keys, '', '', '', '', '']);

                continue;
            }
            $wrong = $bridge->right->other();
            foreach ($names->of($wrong) as $place => $name) {
                [$stands, $must] = [$shown[$wrong->value][$place] ?? '', $shown[$bridge->right->value][$place] ?? ''];
                if (($bridge->source[$place] ?? '') !== ($bridge->target[$place] ?? '')) {
                    yield CsvLine::of([...$keys, $bridge->right->value, $wrong->value, $name, $stands, $must]);
                }
            }
        }
    }

    /**
     * What the target has to set where the source's key is right: a line for each cell of a key that differs.
     *
     * @return list<array<string, string|int|null>> by the columns of the table of lines, the identity in hexadecimal digits
     */
    public function correctionLines(Dataset $dataset): array
    {
        $draft = $dataset->draftNow();
        $names = array_column(self::key($draft), 'target');
        $lines = [];
        foreach (Bridges::fromDocument($draft->document ?? [])->confirmed as $bridge) {
            foreach ($bridge->right === Side::Source ? $names : [] as $place => $name) {
                if ($bridge->source[$place] !== $bridge->target[$place]) {
                    $lines[] = [
                        'ruling_id' => null,
                        'identity' => JoinedBridges::digest($bridge->identity()),
                        'action' => 'set-key',
                        'source_key' => KeyTuple::of($bridge->source)->asCsv(),
                        'key' => json_encode(
                            (object) array_combine($names, $bridge->target),
                            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE,
                        ),
                        'pair_id' => null,
                        'column' => $name,
                        'stands' => $bridge->target[$place],
                        'must' => $bridge->source[$place],
                        'row' => null,
                        'uncertain' => '',
                    ];
                }
            }
        }

        return $lines;
    }

    /** @return array<string, int> by canonical source key: cells that differ in rows that a bridge joined */
    private function differing(Tally $tally, KeyForm $form): array
    {
        $rows = DatabaseRow::all(
            $this->database,
            'SELECT key, differing_cells FROM row_findings WHERE tally_id = ? AND is_bridged AND class = ?',
            [$tally->id, RowClass::Changed->value],
        );
        $differing = [];
        foreach ($rows as $row) {
            $cells = array_map(strval(...), str_getcsv($row->text('key'), ',', '"', ''));
            $differing[$form->canonical($cells)] = $row->int('differing_cells');
        }

        return $differing;
    }

    /** @return list<array{source: string, target: string}> */
    private static function key(?PlanDraft $draft): array
    {
        /** @var list<array{source: string, target: string}> $key */
        $key = $draft->document['key'] ?? [];

        return array_map(static fn(array $pair): array => ['source' => $pair['source'], 'target' => $pair['target']], $key);
    }

    /**
     * @param  list<string>  $cells
     * @param  list<string>  $names
     * @return list<string>
     */
    private static function shown(array $cells, array $names, SideMask $mask): array
    {
        return $mask->ofPrepared()->cells($names, $cells);
    }
}
