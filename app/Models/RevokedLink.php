<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * That a link leads nowhere any more.
 *
 * @property int $report_link_id
 * @property \Illuminate\Support\Carbon $created_at
 */
final class RevokedLink extends Model
{
    public const UPDATED_AT = null;

    public $incrementing = false;

    protected $primaryKey = 'report_link_id';

    protected $guarded = [];
}
