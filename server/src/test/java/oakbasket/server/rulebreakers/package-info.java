/** Classes that break the rules of the house, each in one way, so that every rule is seen to fail. Nothing here is ever run. */
package oakbasket.server.rulebreakers;
