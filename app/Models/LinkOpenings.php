<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * How often a link was opened.
 *
 * @property int $report_link_id
 * @property int $openings
 * @property Carbon $last_at
 */
final class LinkOpenings extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'report_link_id';

    protected $guarded = [];

    protected $casts = ['last_at' => 'immutable_datetime'];

    /** Two who open it in the same moment are counted both. */
    public static function count(ReportLink $link): void
    {
        self::query()->upsert(
            [['report_link_id' => $link->id, 'openings' => 1, 'last_at' => now()]],
            ['report_link_id'],
            ['openings' => self::query()->raw('link_openings.openings + 1'), 'last_at' => now()],
        );
    }
}
