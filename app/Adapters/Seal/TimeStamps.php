<?php

declare(strict_types=1);

namespace App\Adapters\Seal;

use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\Factory;
use NineTally\Core\Seal\Seal;
use NineTally\Core\Seal\TimeStamp;
use NineTally\Core\Seal\UnusableTimeStamp;

/** The service that vouches for the time of seals (RFC 3161), where whoever installs has named one. */
final readonly class TimeStamps
{
    private const SECONDS = 30;

    /**
     * @param  string  $address  of the service; '' where there is none
     * @param  string  $authority  path of the certificates, in PEM, that its answers are held against
     */
    public function __construct(private Factory $http, private string $address, private string $authority) {}

    public function areTaken(): bool
    {
        return $this->address !== '';
    }

    /** @throws UnusableTimeStamp where they cannot be read */
    public function authority(): string
    {
        $pem = @file_get_contents($this->authority);

        return $pem === false || ! str_contains($pem, '-----BEGIN CERTIFICATE-----')
            ? throw UnusableTimeStamp::because("the certificates of the service are not in \"{$this->authority}\"")
            : $pem;
    }

    /** @throws UnusableTimeStamp when the service does not answer, or not with what it was asked for */
    public function of(Seal $seal): TimeStamp
    {
        try {
            $answer = $this->http
                ->timeout(self::SECONDS)
                ->withBody(TimeStamp::question($seal->statement), 'application/timestamp-query')
                ->post($this->address);
        } catch (ConnectionException) {
            throw UnusableTimeStamp::because('the service does not answer');
        }
        if (! $answer->successful()) {
            throw UnusableTimeStamp::because("the service answers with status {$answer->status()}");
        }
        $stamp = new TimeStamp($answer->body());
        // Before it is kept: nobody could take it again for the same moment.
        $stamp->of($seal->statement, $this->authority());

        return $stamp;
    }
}
