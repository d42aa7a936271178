<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Ruling;
use App\Models\Tally;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;

/** The acts of ruling that a tally has: those entered on it, and those that were taken over and stand here or were undone here. */
final readonly class ActsOfTally
{
    private const MOST = 500;

    public function __construct(private Connection $database) {}

    /** @return list<ActOfTally> the newest first */
    public function of(Tally $tally, Mask $mask): array
    {
        $standing = $this->database->table('standing_acts')->where('tally_id', $tally->id)->select('ruling_id');
        $undone = $tally->rulings()->whereNotNull('undoes_id')->select('undoes_id');

        return $this->read(
            $tally,
            $mask,
            Ruling::query()
                ->where('dataset_id', $tally->dataset_id)
                ->where(
                    static fn(Builder $query) => $query
                        ->where('tally_id', $tally->id)
                        ->orWhereIn('id', $standing)
                        ->orWhereIn('id', $undone),
                ),
        );
    }

    /**
     * @param  list<int>  $ids
     * @return list<ActOfTally>
     */
    public function these(Tally $tally, Mask $mask, array $ids): array
    {
        return $ids === [] ? [] : $this->read($tally, $mask, Ruling::query()->whereIntegerInRaw('id', $ids));
    }

    /**
     * @param  Builder<Ruling>  $acts
     * @return list<ActOfTally>
     */
    private function read(Tally $tally, Mask $mask, Builder $acts): array
    {
        $found = $acts->with(['user', 'asked', 'tally'])->orderByDesc('id')->limit(self::MOST)->get();
        $standing = [];
        $stands = 'SELECT ruling_id, findings FROM standing_acts WHERE tally_id = ? AND ruling_id = ANY(?::bigint[])';
        foreach (DatabaseRow::all($this->database, $stands, [$tally->id, '{'.$found->pluck('id')->implode(',').'}']) as $row) {
            $standing[$row->int('ruling_id')] = $row->int('findings');
        }
        $undone = $tally->rulings()->whereIntegerInRaw('undoes_id', $found->pluck('id'))->pluck('undoes_id')->all();

        return array_values(
            $found->map(fn(Ruling $act): ActOfTally => new ActOfTally(
                $act,
                $act->tally->number,
                $standing[$act->id] ?? 0,
                in_array($act->id, $undone, true),
                $act->tally_id === $tally->id ? null : ActWords::of($act, $mask),
            ))->all(),
        );
    }
}
