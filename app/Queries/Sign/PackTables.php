<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Delivery;
use App\Models\Purge;
use App\Models\RoleEntry;
use App\Models\Ruling;
use App\Models\Tally;
use App\Models\Waiver;
use App\Queries\Access\TrailOfMigration;
use App\Queries\Review\ActsOfTally;
use App\Queries\Review\ActWords;
use App\Queries\Review\Mask;
use App\Queries\TakeAway\ListTable;
use Illuminate\Database\Connection;
use Illuminate\Support\Carbon;

/** What an evidence pack tells in tables beside the findings: totals, deliveries, acts of ruling, waivers, roles and the trail. */
final readonly class PackTables
{
    public function __construct(private ActsOfTally $acts, private Connection $database) {}

    /** @return array<string, ListTable> by the name of the file, without its ending */
    public function of(Tally $tally, Mask $mask): array
    {
        return [
            'totals' => TotalTables::totals($tally, $mask),
            'total-groups' => TotalTables::groups($tally, $mask),
            'deliveries' => $this->deliveries($tally),
            'rulings' => $this->rulings($tally, $mask),
            'waivers' => $this->waivers($tally),
            'roles' => $this->roles($tally),
            'trail' => (new TrailOfMigration($tally->dataset->migration_id))->table(),
            'purges' => $this->purges($tally),
        ];
    }

    private function deliveries(Tally $tally): ListTable
    {
        $lines = [];
        foreach (
            [['source', $tally->sourceDelivery], ['target', $tally->targetDelivery], ...$this->references($tally)]
            as [$of, $delivery]
        ) {
            foreach ($delivery->parts as $part) {
                $lines[] = [
                    $of,
                    $delivery->number,
                    $part->number,
                    $part->file_name,
                    (int) $part->bytes,
                    $part->digest,
                    self::moment($delivery->delivered_at),
                    $delivery->user->name,
                    $delivery->as_of === null ? '' : self::moment($delivery->as_of),
                ];
            }
        }

        return ListTable::of([
            'of' => 'string', 'delivery' => 'integer', 'part' => 'integer', 'file' => 'string', 'bytes' => 'integer', 'sha256' => 'string',
            'delivered' => 'datetime', 'by' => 'string', 'as of' => 'datetime',
        ], $lines, ['of', 'part']);
    }

    /** @return list<array{string, Delivery}> what values were looked up in, and held against */
    private function references(Tally $tally): array
    {
        $references = [];
        $load = static fn(int $id): Delivery => Delivery::query()->with(['parts', 'user'])->findOrFail($id);
        foreach ($tally->run->reference_deliveries as $name => $id) {
            $references[] = ["reference {$name}", $load($id)];
        }
        foreach ($tally->run->record_deliveries as $name => $sides) {
            foreach ($sides as $side => $id) {
                $references[] = ["records {$name}, {$side}", $load($id)];
            }
        }

        foreach ($tally->run->matched_tallies as $name => $id) {
            $used = Tally::query()->findOrFail($id);
            $references[] = ["{$name}, source", $load($used->source_delivery_id)];
            $references[] = ["{$name}, target", $load($used->target_delivery_id)];
        }

        return $references;
    }

    /** Every act that was ever entered on the dataset up to this tally, those that were undone too. */
    private function rulings(Tally $tally, Mask $mask): ListTable
    {
        $standing = [];
        foreach ($this->acts->of($tally, $mask) as $of) {
            $standing[$of->act->id] = $of->standing;
        }
        $acts = Ruling::query()
            ->where('dataset_id', $tally->dataset_id)
            ->whereIn(
                'tally_id',
                Tally::query()->where('dataset_id', $tally->dataset_id)->where('number', '<=', $tally->number)->select('id'),
            )
            ->with(['user', 'tally', 'asked'])
            ->orderBy('id')
            ->get();

        return ListTable::of(
            [
                'act' => 'integer',
                'tally' => 'integer',
                'decision' => 'string',
                'about' => 'string',
                'reason' => 'string',
                'ticket' => 'string',
                'by' => 'string',
                'asked' => 'string',
                'at' => 'datetime',
                'findings' => 'integer',
                'stands on' => 'integer',
            ],
            array_values(
                $acts
                    ->map(
                        static fn(Ruling $act): array => [
                            $act->id,
                            $act->tally->number,
                            $act->decision->value ?? 'undo',
                            ActWords::of($act, $mask),
                            $act->reason,
                            (string) $act->ticket,
                            $act->user->name,
                            (string) $act->asked?->name,
                            self::moment($act->created_at),
                            $act->findings,
                            $standing[$act->id] ?? 0,
                        ],
                    )
                    ->all(),
            ),
            ['act'],
        );
    }

    private function waivers(Tally $tally): ListTable
    {
        return ListTable::of(
            [
                'waiver' => 'integer',
                'limit' => 'string',
                'worst' => 'string',
                'reason' => 'string',
                'ticket' => 'string',
                'ends on' => 'string',
                'taken back' => 'boolean',
                'by' => 'string',
                'at' => 'datetime',
            ],
            array_values(
                $tally->dataset->waivers
                    ->map(
                        static fn(Waiver $waiver): array => [
                            $waiver->id,
                            $waiver->limit_id,
                            $waiver->worst,
                            $waiver->reason,
                            (string) $waiver->ticket,
                            $waiver->ends_on->format('Y-m-d'),
                            ListTable::boolean($waiver->is_lifted),
                            $waiver->user->name,
                            self::moment($waiver->created_at),
                        ],
                    )
                    ->all(),
            ),
            ['waiver'],
        );
    }

    private function roles(Tally $tally): ListTable
    {
        $entries = RoleEntry::query()->where('migration_id', $tally->dataset->migration_id)->with(['user', 'by'])->orderBy('id')->get();

        return ListTable::of(
            ['entry' => 'integer', 'person' => 'string', 'role' => 'string', 'by' => 'string', 'at' => 'datetime'],
            array_values(
                $entries
                    ->map(
                        static fn(RoleEntry $entry): array => [
                            $entry->id,
                            $entry->user->name,
                            $entry->role?->label() ?? 'ended',
                            (string) $entry->by?->name,
                            self::moment($entry->created_at),
                        ],
                    )
                    ->all(),
            ),
            ['entry'],
        );
    }

    /** What of it is gone: a pack that is made afterwards has no findings, and says why. */
    private function purges(Tally $tally): ListTable
    {
        $read = $this->database
            ->table('run_deliveries')
            ->where('run_id', $tally->run_id)
            ->where('how', '<>', 'records')
            ->select('delivery_id');
        $purges = Purge::query()->whereIn('delivery_id', $read)->with(['delivery', 'user'])->orderBy('id')->get();

        return ListTable::of(
            ['side' => 'string', 'delivery' => 'integer', 'sha256' => 'string', 'by' => 'string', 'at' => 'datetime', 'reason' => 'string'],
            array_values(
                $purges
                    ->map(
                        static fn(Purge $purge): array => [
                            $purge->delivery->side->value,
                            $purge->delivery->number,
                            $purge->delivery->digest,
                            $purge->user->name,
                            self::moment($purge->created_at),
                            $purge->reason,
                        ],
                    )
                    ->all(),
            ),
            ['side', 'delivery', 'sha256'],
        );
    }

    private static function moment(\DateTimeInterface $at): string
    {
        return Carbon::instance($at)->toIso8601ZuluString();
    }
}
