<?php

declare(strict_types=1);

namespace App\Queries\Access;

use App\Models\RoleEntry;
use App\Models\TrailAct;
use App\Models\TrailEntry;
use App\Queries\TakeAway\ListTable;
use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Builder;

/** The trail of a migration, and what its people did at the door: a page of it, or all of it as a table. */
final readonly class TrailOfMigration
{
    private const PAGE = 200;

    /**
     * @param  CarbonImmutable|null  $from  the first day
     * @param  CarbonImmutable|null  $until  the last day
     */
    public function __construct(
        private int $migrationId,
        private ?TrailAct $act = null,
        private ?int $person = null,
        private ?CarbonImmutable $from = null,
        private ?CarbonImmutable $until = null,
    ) {}

    /** @return array{items: list<array<string, mixed>>, next: int|null} the newest first */
    public function page(?int $before): array
    {
        $entries = $this->entries()
            ->when($before !== null, static fn(Builder $older) => $older->where('id', '<', $before))
            ->orderByDesc('id')
            ->limit(self::PAGE)
            ->get();

        return [
            'items' => array_values(
                $entries
                    ->map(static fn(TrailEntry $entry): array => [
                        'id' => $entry->id,
                        'act' => $entry->act->value,
                        'person' => $entry->user?->name,
                        'about' => $entry->detail->about ?? 'purged',
                        'address' => $entry->detail->address ?? '',
                        'at' => $entry->created_at->toIso8601ZuluString(),
                    ])
                    ->all(),
            ),
            'next' => $entries->count() === self::PAGE ? $entries->last()?->id : null,
        ];
    }

    /** With the digest of each entry in the chain, so that what was taken away can be held against it later. */
    public function table(): ListTable
    {
        return ListTable::of(
            [
                'entry' => 'integer', 'act' => 'string', 'person' => 'string', 'about' => 'string', 'from' => 'string', 'at' => 'datetime',
                'place in the chain' => 'integer', 'digest' => 'string',
            ],
            $this->lines(),
            ['entry'],
        );
    }

    /** @return \Generator<int, list<string|int>> the oldest first */
    private function lines(): \Generator
    {
        foreach ($this->entries()->with('link')->lazyById(1_000) as $entry) {
            yield [
                $entry->id,
                $entry->act->value,
                (string) $entry->user?->name,
                $entry->detail->about ?? 'purged',
                $entry->detail->address ?? '',
                $entry->created_at->toIso8601ZuluString(),
                $entry->link->place ?? '',
                $entry->link->digest ?? '',
            ];
        }
    }

    /** @return Builder<TrailEntry> */
    private function entries(): Builder
    {
        return TrailEntry::query()
            ->where(
                fn(Builder $of) => $of
                    ->where('migration_id', $this->migrationId)
                    ->orWhere(
                        fn(Builder $door) => $door
                            ->whereNull('migration_id')
                            ->whereIn('user_id', RoleEntry::query()->where('migration_id', $this->migrationId)->select('user_id')),
                    ),
            )
            ->when($this->act !== null, fn(Builder $some) => $some->where('act', $this->act))
            ->when($this->person !== null, fn(Builder $some) => $some->where('user_id', $this->person))
            ->when($this->from !== null, fn(Builder $some) => $some->where('created_at', '>=', $this->from))
            ->when($this->until !== null, fn(Builder $some) => $some->where('created_at', '<', $this->until?->addDay()))
            ->with(['user', 'detail']);
    }
}
