<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\Dataset;
use App\Models\RecordCheck;
use App\Models\RecordLine;
use App\Models\Tally;
use App\Models\User;
use App\Queries\Review\Mask;
use App\Queries\Review\Masks;
use NineTally\Core\Records\RecordReport;
use NineTally\Core\Records\RequiredRecord;
use NineTally\Core\Row\Side;

/**
 * Values of a tally that must have a record, as they are shown: those that the move lost first. Whoever may not see the values, here or
 * where the records are, is told how many they are and no value.
 */
final readonly class RecordsOfTally
{
    public const PAGE = 200;

    public function __construct(private Masks $masks) {}

    /** @return list<array<string, mixed>> */
    public function all(Tally $tally, Mask $mask, ?User $person): array
    {
        $before = $this->before($tally);
        $deliveries = array_column($tally->summary['madeOf']['records'] ?? [], null, 'name');
        $shown = [];
        foreach (RecordCheck::query()->where('tally_id', $tally->id)->orderBy('number')->get() as $check) {
            $rule = $check->rule();
            $shown[] = [
                ...$check->figures,
                'number' => $check->number,
                'name' => $rule->name(),
                'recordName' => $rule->recordName(),
                'isMasked' => $this->isMasked($tally, $rule, $mask, $person),
                'deliveries' => array_diff_key($deliveries[$rule->in] ?? ['source' => null, 'target' => null], ['name' => true]),
                'datasetId' => $this->dataset($tally, $rule)?->id,
                'before' => $before[$rule->sentence()] ?? null,
            ];
        }
        usort($shown, static fn(array $one, array $other): int => self::worst($other) <=> self::worst($one));

        return $shown;
    }

    /**
     * @param  string  $list  a kind of values without a record, or the side whose records nothing refers to
     * @return array{items: list<array<string, mixed>>, next: int|null, isMasked: bool}
     */
    public function lines(Tally $tally, RecordCheck $check, string $list, int $from, Mask $mask, ?User $person): array
    {
        if ($this->isMasked($tally, $check->rule(), $mask, $person)) {
            return ['items' => [], 'next' => null, 'isMasked' => true];
        }
        $lines = $this->query($check, $list, $from)->limit(self::PAGE + 1)->get();

        return [
            'items' => array_values(
                $lines->take(self::PAGE)
                    ->map(static fn(RecordLine $line): array => self::line($line, $mask))
                    ->all(),
            ),
            'next' => $lines->count() > self::PAGE ? $from + self::PAGE : null,
            'isMasked' => false,
        ];
    }

    /** @return \Generator<int, RecordLine> */
    public function every(RecordCheck $check, string $list): \Generator
    {
        yield from $this->query($check, $list, 1)->cursor();
    }

    public function isMasked(Tally $tally, RequiredRecord $rule, Mask $mask, ?User $person): bool
    {
        $dataset = $this->dataset($tally, $rule);
        foreach (Side::cases() as $side) {
            if (array_filter($rule->columnsOf($side), $mask->hidesColumn(...)) !== []) {
                return true;
            }
            $hidden = $dataset === null ? [] : $this->masks->ofSide($dataset, $side, $person)->delivered();
            if (array_intersect($rule->recordColumns($side), $hidden) !== []) {
                return true;
            }
        }

        return false;
    }

    /** @return array<string, mixed> */
    private static function line(RecordLine $line, Mask $mask): array
    {
        $figures = $line->figures;
        // The key of a row that needs the value.
        $first = $mask->hidesKeys() ? [] : $figures['first'] ?? [];

        return [
            'place' => $line->place,
            ...array_diff_key($figures, ['kind' => true]),
            ...isset($figures['first']) ? ['first' => $first] : [],
        ];
    }

    /** @return \Illuminate\Database\Eloquent\Builder<RecordLine> */
    private function query(RecordCheck $check, string $list, int $from): \Illuminate\Database\Eloquent\Builder
    {
        return RecordLine::query()
            ->where(['tally_id' => $check->tally_id, 'number' => $check->number, 'list' => $list])
            ->where('place', '>=', $from)
            ->orderBy('place');
    }

    private function dataset(Tally $tally, RequiredRecord $rule): ?Dataset
    {
        return $tally->dataset->migration->datasets()->whereRaw('lower(name) = lower(?)', [$rule->in])->first();
    }

    /** @return array<string, array{tally: int, lost: int, own: int}> by what the rule says */
    private function before(Tally $tally): array
    {
        $earlier = Tally::query()->where('dataset_id', $tally->dataset_id)->where('number', $tally->number - 1)->first();
        $before = [];
        foreach ($earlier === null ? [] : RecordCheck::query()->where('tally_id', $earlier->id)->get()->all() as $check) {
            $kinds = $check->figures['kinds'];
            $before[$check->rule()->sentence()] = [
                'tally' => $earlier->number ?? 0,
                'lost' => $kinds['lost']['values'],
                'own' => $kinds['own']['values'],
            ];
        }

        return $before;
    }

    /**
     * @param  array<string, mixed>  $check
     * @return array{int, int}
     */
    private static function worst(array $check): array
    {
        $kinds = $check['kinds'];
        $of = static fn(string $kind): int => is_array($kinds) && is_array($kinds[$kind] ?? null) && is_int($kinds[$kind]['rows'] ?? null)
            ? $kinds[$kind]['rows']
            : 0;

        return [$of('lost') + $of('own') + $of('untold'), $of('inherited')];
    }

    /** @return list<string> */
    public static function lists(): array
    {
        return [
            ...RecordReport::KINDS,
            ...array_map(static fn(Side $side): string => RecordLine::UNREFERENCED.$side->value, Side::cases()),
        ];
    }
}
