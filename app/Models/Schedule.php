<?php

declare(strict_types=1);

namespace App\Models;

use Carbon\CarbonImmutable;
use Cron\CronExpression;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * When both sides of a dataset are drawn and tallied by themselves.
 *
 * @property int $dataset_id
 * @property string|null $expression of cron: five fields; null where arrivals alone count
 * @property string $zone in which its times are meant (IANA)
 * @property bool $on_arrival tallied when both sides have arrived, whoever brought them
 * @property bool $in_place both databases are asked first, and what differs is drawn
 * @property int|null $most_apart seconds between the moments at which both sides are asked; null: as many as it takes
 * @property bool $is_on
 * @property CarbonImmutable $considered_at up to when its times have been looked at
 * @property int $user_id who saved it, and in whose name is drawn
 * @property CarbonImmutable $updated_at
 * @property-read Dataset $dataset
 * @property-read User $user
 */
final class Schedule extends Model
{
    public const CREATED_AT = null;

    public $incrementing = false;

    protected $primaryKey = 'dataset_id';

    protected $guarded = [];

    protected $casts = [
        'is_on' => 'boolean',
        'on_arrival' => 'boolean', 'in_place' => 'boolean',
        'considered_at' => 'immutable_datetime',
        'updated_at' => 'immutable_datetime',
    ];

    /** @return list<CarbonImmutable> its next times */
    public function next(int $count, CarbonImmutable $from): array
    {
        $times = [];
        $at = $from;
        for ($number = 0; $this->is_on && $this->expression !== null && $number < $count; $number++) {
            $at = CarbonImmutable::instance((new CronExpression($this->expression))->getNextRunDate($at, 0, false, $this->zone))->utc();
            $times[] = $at;
        }

        return $times;
    }

    /** The newest of the times that came since it was looked at; null where none did. Of several that were missed one is made up. */
    public function due(CarbonImmutable $now): ?CarbonImmutable
    {
        if (! $this->is_on || $this->expression === null) {
            return null;
        }
        $last = CarbonImmutable::instance((new CronExpression($this->expression))->getPreviousRunDate($now, 0, true, $this->zone))->utc();

        return $last > $this->considered_at ? $last : null;
    }

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
