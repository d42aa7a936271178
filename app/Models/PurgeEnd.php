<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * That the files of a purge are gone too.
 *
 * @property int $purge_id
 */
final class PurgeEnd extends Model
{
    public const UPDATED_AT = null;

    public $incrementing = false;

    protected $primaryKey = 'purge_id';

    protected $guarded = [];
}
