<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A version of a plan without the values that its crosswalks and bridges held. Its digest stays that of what it was.
 *
 * @property int $plan_version_id
 * @property int $purge_id
 * @property int $values_removed lines of crosswalks, and bridges
 */
final class PurgedPlan extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'plan_version_id';

    protected $guarded = [];
}
