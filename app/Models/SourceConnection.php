<?php

declare(strict_types=1);

namespace App\Models;

use App\Adapters\Sources\SourceAddress;
use App\Adapters\Sources\SourceKind;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A database that deliveries of a migration are drawn from.
 *
 * @phpstan-import-type Settings from SourceAddress
 *
 * @property int $id
 * @property int $migration_id
 * @property string $label by which it is named
 * @property SourceKind $kind
 * @property Settings $settings
 * @property string|null $secret the password: encrypted where it is kept, and never told
 * @property int $user_id who saved it last
 * @property \Illuminate\Support\Carbon $updated_at
 * @property-read Migration $migration
 * @property-read User $user
 */
final class SourceConnection extends Model
{
    protected $table = 'connections';

    protected $guarded = [];

    protected $hidden = ['secret'];

    protected $casts = ['kind' => SourceKind::class, 'settings' => 'array', 'secret' => 'encrypted'];

    public function address(): SourceAddress
    {
        return SourceAddress::of($this->kind, $this->settings, (string) $this->secret);
    }

    /** @return BelongsTo<Migration, $this> */
    public function migration(): BelongsTo
    {
        return $this->belongsTo(Migration::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
