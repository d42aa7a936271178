<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * That a pack is no longer kept: the migration says for how long they are. Its digest and its seal stay.
 *
 * @property int $pack_id
 * @property \Illuminate\Support\Carbon $created_at
 */
final class RemovedPack extends Model
{
    public const UPDATED_AT = null;

    public $incrementing = false;

    protected $primaryKey = 'pack_id';

    protected $guarded = [];
}
