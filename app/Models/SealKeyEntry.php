<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * The public half of a key that packs were sealed with.
 *
 * @property string $fingerprint
 * @property string $pem
 * @property \Illuminate\Support\Carbon $created_at
 */
final class SealKeyEntry extends Model
{
    public const UPDATED_AT = null;

    public $incrementing = false;

    protected $table = 'seal_keys';

    protected $primaryKey = 'fingerprint';

    protected $keyType = 'string';

    protected $guarded = [];
}
