<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasOne;
use Illuminate\Support\Carbon;

/**
 * A link by which somebody without an account reads one report.
 *
 * @property int $id
 * @property int $tally_id
 * @property string $token_hash SHA-256: whoever reads the database learns no link
 * @property string $html_digest of the report as it stood
 * @property Carbon $ends_at
 * @property Carbon $created_at
 * @property-read Tally $tally
 * @property-read User $user
 * @property-read RevokedLink|null $revoked
 * @property-read LinkOpenings|null $openings
 */
final class ReportLink extends Model
{
    public const UPDATED_AT = null;

    private const TOKEN_BYTES = 16;

    protected $guarded = [];

    protected $casts = ['ends_at' => 'immutable_datetime'];

    /** 128 bits, in 26 letters and digits that are told apart when somebody reads them out. */
    public static function token(): string
    {
        $digits = '';
        foreach (str_split(bin2hex(random_bytes(self::TOKEN_BYTES)), 2) as $byte) {
            $digits .= sprintf('%08b', hexdec($byte));
        }

        return implode('', array_map(
            static fn(string $bits): string => '0123456789abcdefghjkmnpqrstvwxyz'[(int) bindec($bits)],
            str_split(str_pad($digits, 130, '0'), 5),
        ));
    }

    public static function open(string $token): ?self
    {
        $link = self::query()->with(['tally.dataset', 'revoked'])->firstWhere('token_hash', hash('sha256', $token));

        return $link !== null && $link->isOpen() ? $link : null;
    }

    public function isOpen(): bool
    {
        return $this->revoked === null && $this->ends_at->isFuture();
    }

    /** @return BelongsTo<Tally, $this> */
    public function tally(): BelongsTo
    {
        return $this->belongsTo(Tally::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return HasOne<RevokedLink, $this> */
    public function revoked(): HasOne
    {
        return $this->hasOne(RevokedLink::class);
    }

    /** @return HasOne<LinkOpenings, $this> */
    public function openings(): HasOne
    {
        return $this->hasOne(LinkOpenings::class);
    }
}
