<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\TrailDetail;
use App\Models\TrailEntry;
use App\Models\TrailLink;
use Illuminate\Database\Connection;

/**
 * Links the entries of the trail, each to the one before. They are linked when what they tell of is committed, one after the other under a
 * lock: so the order is that in which they were linked, and an act that was taken back leaves no gap.
 */
final readonly class TrailChain
{
    private const AT_ONCE = 1_000;

    /** Among so many of the newest entries one that was committed late is looked for; the whole trail is when somebody asks for it. */
    private const LATE = 10_000;

    public function __construct(private Connection $database) {}

    /**
     * @param  bool  $all  whether the whole trail is looked through, and not its end
     * @return int entries that were linked
     */
    public function link(bool $all = false): int
    {
        return $this->database->transaction(function () use ($all): int {
            $this->database->select('SELECT pg_advisory_xact_lock(4, 1)');
            $linked = 0;
            $last = TrailLink::query()->latest('place')->first();
            $newest = TrailEntry::query()->latest('id')->first()->id ?? 0;
            $from = $all ? 0 : $newest - self::LATE;
            do {
                $waiting = $this->waiting()->where('id', '>', $from)->orderBy('id')->limit(self::AT_ONCE)->get();
                foreach ($waiting as $entry) {
                    $last = TrailLink::query()->create([
                        'place' => ($last->place ?? 0) + 1,
                        'entry_id' => $entry->id,
                        'digest' => self::digest($last->digest ?? '', $entry),
                    ]);
                    $linked++;
                }
            } while ($waiting->count() === self::AT_ONCE);

            return $linked;
        });
    }

    public function head(): ?string
    {
        return TrailLink::query()->latest('place')->first()?->digest;
    }

    /**
     * @return array{linked: int, waiting: int, purged: int, broken: string|null} the first thing that does not hold, in words; null where
     *     all does
     */
    public function verify(): array
    {
        $before = '';
        $expected = $purged = 0;
        $broken = null;
        foreach (TrailLink::query()->with('entry.detail')->orderBy('place')->lazy(self::AT_ONCE) as $link) {
            $expected++;
            $detail = $link->entry->detail;
            $broken ??= match (true) {
                $link->place !== $expected => "Place {$expected} is missing: an entry was taken out.",
                $link->digest !== self::digest($before, $link->entry)
                    => "Entry {$link->entry_id}, at place {$link->place}, is not what was linked.",
                $detail !== null && TrailDetail::digest($detail->salt, $detail->about, $detail->address) !== $link->entry->detail_digest
                    => "What entry {$link->entry_id} says is not what it said.",
                default => null,
            };
            $purged += $detail === null ? 1 : 0;
            $before = $link->digest;
        }

        return ['linked' => $expected, 'waiting' => $this->waiting()->count(), 'purged' => $purged, 'broken' => $broken];
    }

    private static function digest(string $before, TrailEntry $entry): string
    {
        return hash(
            'sha256',
            implode("\n", [
                $before,
                $entry->id,
                $entry->act->value,
                $entry->user_id ?? '',
                $entry->migration_id ?? '',
                $entry->created_at->toIso8601ZuluString(),
                $entry->detail_digest,
            ]),
        );
    }

    /** @return \Illuminate\Database\Eloquent\Builder<TrailEntry> */
    private function waiting(): \Illuminate\Database\Eloquent\Builder
    {
        return TrailEntry::query()->whereNotExists(
            static fn(\Illuminate\Database\Query\Builder $links) => $links
                ->selectRaw('1')
                ->from('trail_links')
                ->whereColumn('trail_links.entry_id', 'trail_entries.id'),
        );
    }
}
